import type { Block, Cell, Chart, ReportModel, ReportSentence } from '../../core/text/report';
import { Badge, CellOf, ContenderName, isNumber, Line, Sign, Strip, TieChip } from './marks';
import { capital } from '../../core/text/phrasing';
import { nameIn, shortHash, titleOf } from '../text';

interface BlockProps<Kind extends Block['kind']> {
  model: ReportModel;
  block: Extract<Block, { kind: Kind }>;
}

/** A part’s content, block by block. */
export function Blocks({ model, blocks }: { model: ReportModel; blocks: readonly Block[] }) {
  return (
    <>
      {blocks.map((block, at) => (
        <BlockOf key={at} model={model} block={block} />
      ))}
    </>
  );
}

function BlockOf({ model, block }: { model: ReportModel; block: Block }) {
  switch (block.kind) {
    case 'answer':
      return <Answer model={model} block={block} />;
    case 'said':
      return <Said model={model} block={block} />;
    case 'text':
      return (
        <p>
          <Line model={model} text={block.text} />
        </p>
      );
    case 'made':
      return <Made block={block} />;
    case 'list':
      return <List model={model} block={block} />;
    case 'glance':
      return <Glance model={model} block={block} />;
    case 'chart':
      return <ChartOf model={model} block={block} />;
    case 'photos':
      return <Photos model={model} block={block} />;
    case 'table':
      return <Table model={model} block={block} />;
    case 'drawings':
      return <Drawings block={block} />;
    case 'card':
      return <Card model={model} />;
    case 'data':
      return <Data model={model} />;
  }
}

function Answer({ model, block }: BlockProps<'answer'>) {
  return (
    <blockquote className="answer">
      {block.sentences.map((sentence) => (
        <div key={sentence.verdict_id}>
          <p>{sentence.text}</p>
          <Ties model={model} sentence={sentence} />
        </div>
      ))}
    </blockquote>
  );
}

function Ties({ model, sentence }: { model: ReportModel; sentence: ReportSentence }) {
  if (sentence.citations.length === 0) return null;
  return (
    <p className="citations">
      {sentence.citations.map((citation) => (
        <TieChip key={citation.address} model={model} citation={citation} />
      ))}
    </p>
  );
}

function Said({ model, block }: BlockProps<'said'>) {
  return (
    <section className={`said ${block.tone}`}>
      <h3>{block.title}</h3>
      <ul>
        {block.items.map((sentence) => (
          <li key={sentence.verdict_id}>
            {sentence.contender !== null && (
              <>
                <ContenderName model={model} id={sentence.contender} />:{' '}
              </>
            )}
            {sentence.text}
            <Ties model={model} sentence={sentence} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Made({ block }: Pick<BlockProps<'made'>, 'block'>) {
  return (
    <section className="said made">
      {block.title !== null && <h3>{block.title}</h3>}
      <ul>
        {block.sentences.map(({ name, text }) => (
          <li key={name}>{text}</li>
        ))}
      </ul>
    </section>
  );
}

function List({ model, block }: BlockProps<'list'>) {
  return (
    <section className="said">
      {block.title !== null && <h3>{block.title}</h3>}
      <ul>
        {block.items.map((text, at) => (
          <li key={at}>
            <Line model={model} text={text} />
          </li>
        ))}
      </ul>
    </section>
  );
}

const chartOf = (model: ReportModel, id: string): Chart | undefined =>
  model.charts.find((chart) => chart.id === id);

function Glance({ model, block }: BlockProps<'glance'>) {
  return (
    <div className="wide" role="region" aria-label="At a glance" tabIndex={0}>
      <table className="glance">
        <thead>
          <tr>
            <th scope="col">
              <span className="unseen">figure</span>
            </th>
            {model.contenders.map(({ contender_id }) => (
              <th key={contender_id} scope="col">
                <ContenderName model={model} id={contender_id} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {block.charts.map((id) => {
            const chart = chartOf(model, id);
            return chart && <GlanceRow key={id} model={model} chart={chart} />;
          })}
        </tbody>
      </table>
    </div>
  );
}

function GlanceRow({ model, chart }: { model: ReportModel; chart: Chart }) {
  return (
    <tr>
      <th scope="row">
        {chart.title}
        {chart.unit !== '' && <small>, {chart.unit}</small>}
      </th>
      {chart.rows.map((row) => {
        const mark = model.contenders.find((one) => one.contender_id === row.contender);
        if (!row.figure && row.instead === '') {
          return (
            <td key={row.contender} className="unknown">
              <span>not known</span>
            </td>
          );
        }
        return (
          <td key={row.contender} className="number">
            <span className="value">
              <Sign row={row} />{' '}
              {row.figure ? <Line model={model} text={[{ figure: row.figure }]} /> : row.instead}
            </span>
            <Strip
              chart={chart}
              row={row}
              hue={mark?.hue ?? 0}
              isTuned={mark?.isTuned ?? false}
              height={14}
            />
          </td>
        );
      })}
    </tr>
  );
}

function ChartOf({ model, block }: BlockProps<'chart'>) {
  const chart = chartOf(model, block.chart);
  if (!chart) return null;
  return (
    <figure className="chart">
      <figcaption>
        <b>{capital(chart.title)}</b>
        {chart.unit !== '' && `, ${chart.unit}`}
        {chart.isLargerBetter !== null && (
          <small> · {chart.isLargerBetter ? 'more is better' : 'less is better'}</small>
        )}
        <br />
        <small>{chart.sentence}</small>{' '}
        <small className="leave">
          <a href={`figures/${chart.id}.svg`} download={`${chart.id}.svg`}>
            SVG
          </a>
        </small>
      </figcaption>
      <table className="strips">
        <tbody>
          {chart.rows.map((row) => {
            const mark = model.contenders.find((one) => one.contender_id === row.contender);
            return (
              <tr key={row.contender}>
                <th scope="row">
                  <ContenderName model={model} id={row.contender} />
                </th>
                <td className="place">
                  {row.figure ? (
                    <Strip
                      chart={chart}
                      row={row}
                      hue={mark?.hue ?? 0}
                      isTuned={mark?.isTuned ?? false}
                      height={26}
                    />
                  ) : (
                    <span className="none">{row.instead || 'not known'}</span>
                  )}
                </td>
                <td className="number">
                  {row.figure && <Line model={model} text={[{ figure: row.figure }]} />}
                </td>
                <td className="sign-cell">
                  <Sign row={row} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </figure>
  );
}

function Photos({ model, block }: BlockProps<'photos'>) {
  const row = model.photos.find((one) => one.id === block.row);
  if (!row) return null;
  return (
    <figure className="photos">
      <figcaption>
        <b>The same place on every contender: {row.title}</b> <small>{row.where}</small>
      </figcaption>
      <ul>
        {row.frames.map((frame) => (
          <li key={frame.contender}>
            <img
              src={frame.file}
              {...sizeOf(row.box)}
              alt={`${row.title}, ${row.where}: ${nameIn(model, frame.contender)}`}
            />
            <span className="under">
              <Badge model={model} id={frame.contender} />
              {frame.figure && <Line model={model} text={[{ figure: frame.figure }]} />}
            </span>
          </li>
        ))}
      </ul>
    </figure>
  );
}

function Table({ model, block }: BlockProps<'table'>) {
  return (
    <div className="wide" role="region" aria-label={block.caption} tabIndex={0}>
      <table>
        <caption>{block.caption}</caption>
        <thead>
          <tr>
            <td />
            {block.heads.map((head, at) => (
              <th
                key={at}
                scope="col"
                className={block.rows.some((row) => isOf(row.cells[at])) ? 'number' : undefined}
              >
                <Head model={model} text={head} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {block.rows.map((row, at) => (
            <tr key={at}>
              <th scope="row">
                <Head model={model} text={row.head} />
              </th>
              {row.cells.map((cell, place) => (
                <CellOf key={place} model={model} cell={cell} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const isOf = (cell: Cell | undefined): boolean => cell !== undefined && isNumber(cell);

function Head({ model, text }: { model: ReportModel; text: Parameters<typeof Line>[0]['text'] }) {
  const [only] = text;
  if (text.length === 1 && typeof only === 'object' && 'contender' in only) {
    return <ContenderName model={model} id={only.contender} />;
  }
  return <Line model={model} text={text} />;
}

function Drawings({ block }: Pick<BlockProps<'drawings'>, 'block'>) {
  return (
    <ul className="drawings">
      {block.items.map(({ name, note, drawn }) => (
        <li key={name}>
          {drawn ? (
            <svg
              viewBox={`${drawn.x - 1} ${drawn.y - 1} ${drawn.w + 2} ${drawn.h + 2}`}
              role="img"
              aria-label={`${name} from the front`}
            >
              <path d={drawn.path} fill="none" vectorEffect="non-scaling-stroke" />
            </svg>
          ) : (
            <span className="unknown">
              <span>no drawing</span>
            </span>
          )}
          <b>{name}</b>
          <small>{note}</small>
        </li>
      ))}
    </ul>
  );
}

function Card({ model }: { model: ReportModel }) {
  const { card } = model;
  if (!card) return null;
  const total = card.card.criteria.reduce((sum, one) => sum + one.weight, 0);
  return (
    <div className="card" id="card">
      <table className="stated" id="stated">
        <caption>{card.card.name ?? 'The scorecard'}: the order as it is stated</caption>
        <thead>
          <tr>
            <th scope="col">contender</th>
            <th scope="col" className="number">
              score of 100
            </th>
            <th scope="col" className="number">
              comes first in
            </th>
            <th scope="col" className="number">
              stays first up to
            </th>
          </tr>
        </thead>
        <tbody>
          {card.stated.map((row) => (
            <tr key={row.contender} data-contender={row.contender}>
              <th scope="row">
                <ContenderName model={model} id={row.contender} />
              </th>
              <td className="number">
                {row.score && <Line model={model} text={[{ figure: row.score }]} />}
              </td>
              <td className="number">
                {row.first ? <Line model={model} text={[{ figure: row.first }]} /> : 'out'}
              </td>
              <td className="number">
                {row.turning ? (
                  <Line model={model} text={[{ figure: row.turning }]} />
                ) : (
                  <span className="none">{row.why}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="weights" id="weights">
        <caption>Its weights</caption>
        <tbody>
          {card.card.criteria.map(({ key, weight }) => (
            <tr key={key} data-criterion={key} data-weight={weight}>
              <th scope="row">{card.labels[key] ?? key}</th>
              <td className="number">{((100 * weight) / (total || 1)).toFixed(0)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Data({ model }: { model: ReportModel }) {
  const { data } = model;
  return (
    <section className="said">
      <p>
        <a href="data.zip" download={`${model.name}-data.zip`}>
          data.zip
        </a>{' '}
        ({(data.bytes / 1e6).toFixed(1)} MB) holds the study as it was frozen: tables as CSV with
        their description, meshes and sliced files. Its SHA-256 is{' '}
        <code className="hash">{data.sha256}</code>.
      </p>
      <p>
        Every figure on this page is in{' '}
        <a href="figures.json" download="figures.json">
          figures.json
        </a>{' '}
        with its address in the results. <code>vergleich verify</code> of the whole report
        recomputes all of them from the data and names each one that differs.
      </p>
      <p>
        {Object.entries(data.tables)
          .filter(([, count]) => count > 0)
          .map(([table, count]) => `${titleOf(table)} ${count}`)
          .join(' · ')}
      </p>
      <p className="print-only">SHA-256 {shortHash(data.sha256)}</p>
    </section>
  );
}

/** Pixels of a frame's longer side, as frames are cut. */
const LONGEST = 640;

/** The size that a frame has before its picture has come: nothing moves when it does. */
function sizeOf({ w, h }: { w: number; h: number }): { width: number; height: number } {
  const scale = LONGEST / Math.max(w, h);
  return { width: Math.round(w * scale), height: Math.round(h * scale) };
}
