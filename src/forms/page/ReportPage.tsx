import type { ReportModel, RevisionChanges } from '../../core/text/report';
import { dayOf, shortHash, titleOf } from '../text';
import { Blocks } from './Blocks';
import { structured } from './structured';

/** Text of a script that only holds data: no markup of the page can end it. */
const asData = (value: unknown): string => JSON.stringify(value).replaceAll('<', '\\u003c');

/** A report as one page that needs nothing from elsewhere. */
export function ReportPage({ model }: { model: ReportModel }) {
  const { since } = model;
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="color-scheme" content="light dark" />
        <title>{`${model.title} · report ${model.number}`}</title>
        <link rel="stylesheet" href="report.css" />
        <link rel="icon" href="data:," />
        <script
          type="application/ld+json"
          dangerouslySetInnerHTML={{ __html: asData(structured(model)) }}
        />
        {model.card && (
          <script
            id="card-data"
            type="application/json"
            dangerouslySetInnerHTML={{
              __html: asData({ ...model.card, contenderMarks: model.contenders }),
            }}
          />
        )}
        <script src="report.js" defer />
      </head>
      <body>
        <a className="skip" href="#answer">
          To the answer
        </a>
        <div id="notice" />
        <header>
          <p className="line">
            <span>
              {model.author !== null && `${model.author} · `}report {model.number} of{' '}
              <time dateTime={model.frozen_at}>{dayOf(model.frozen_at)}</time>
              {since && (
                <>
                  {' · '}
                  <a href="#changes">what changed since report {since.from}</a>
                </>
              )}
            </span>
            <span>
              all figures follow from the data · SHA-256 <code>{shortHash(model.data.sha256)}</code>{' '}
              · <a href="data.zip">get the data</a>
            </span>
          </p>
          <h1>{model.title}</h1>
          {model.question !== null && <p className="question">{model.question}</p>}
        </header>
        <nav aria-label="Contents">
          <ol>
            {model.sections.map(({ part, title }) => (
              <li key={part}>
                <a href={`#${part}`}>{title}</a>
              </li>
            ))}
            {since && (
              <li>
                <a href="#changes">What changed</a>
              </li>
            )}
          </ol>
        </nav>
        <main>
          {model.sections.map(({ part, title, blocks }) => (
            <section key={part} id={part} className={`part part-${part}`}>
              <h2>{title}</h2>
              <Blocks model={model} blocks={blocks} />
            </section>
          ))}
          {since && <Changes since={since} />}
        </main>
        <footer>
          <p>
            Report {model.number}, frozen {dayOf(model.frozen_at)}. Intervals are{' '}
            {(100 * (1 - model.evaluation.alpha)).toFixed(0)} %. Hatched is not known.
          </p>
        </footer>
      </body>
    </html>
  );
}

/** What is different since the revision before. */
function Changes({ since }: { since: RevisionChanges }) {
  return (
    <section id="changes" className="part">
      <h2>What changed since report {since.from}</h2>
      {since.figures.length > 0 ? (
        <div className="wide" role="region" aria-label="Figures that moved" tabIndex={0}>
          <table>
            <caption>Figures with another verdict, or that moved beyond their interval</caption>
            <thead>
              <tr>
                <th scope="col">figure</th>
                <th scope="col" className="number">
                  report {since.from}
                </th>
                <th scope="col" className="number">
                  report {since.to}
                </th>
              </tr>
            </thead>
            <tbody>
              {since.figures.map(({ address, label, then, now }) => (
                <tr key={address}>
                  <th scope="row">{label}</th>
                  <td className="number">{then}</td>
                  <td className="number">{now}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <p>No figure moved beyond what was known of it, and no verdict is another.</p>
      )}
      {since.others > 0 && (
        <p>{since.others} figures without an interval, such as counts and medians, are others.</p>
      )}
      {since.words.length > 0 && (
        <ul>
          {since.words.map((change, at) => (
            <li key={at}>
              {change.kind === 'added' && <>New: {change.now}</>}
              {change.kind === 'gone' && (
                <>
                  Gone: <del>{change.then}</del>
                </>
              )}
              {change.kind === 'changed' && (
                <>
                  <del>{change.then}</del> <ins>{change.now}</ins>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      <p>
        {since.data.length > 0
          ? since.data
              .map(({ table, then, now }) => `${titleOf(table)}: ${then} → ${now}`)
              .join(' · ')
          : since.isSameData
            ? 'The data are the same.'
            : 'Values in the data were corrected; no table has more or fewer rows.'}
      </p>
    </section>
  );
}
