import { Explain } from '../marks/Explain';
import { lightInWords } from '../../core/answers/figure-names';
import { ends } from '../lib/format';
import type { ContenderMark } from '../../core/model/study';
import type { PhotoFigure } from '../../core/measures/surface';
import { Leaving } from '../kit/Leaving';
import { ContenderName } from '../marks/ContenderName';
import { DotStrip, scaleFor, StripAxis, type StripScale } from '../marks/DotStrip';
import { UnknownCell } from '../marks/Unknown';

interface PhotoFiguresProps {
  marks: readonly ContenderMark[];
  photo: Record<string, Record<string, PhotoFigure>>;
  artefacts: Readonly<Record<string, string>>;
  reference: string | null;
  codes: Readonly<Record<string, string>>;
}

interface Way {
  what: string;
  say: (value: number) => string;
  /** What the axis counts, and its digits. */
  factor: number;
  digits: number;
}

const contrast = (what: string): Way => ({
  what,
  say: (value: number) => value.toFixed(4),
  factor: 1,
  digits: 3,
});
const share = (what: string): Way => ({
  what,
  say: (value: number) => `${(100 * value).toFixed(2)} %`,
  factor: 100,
  digits: 1,
});
/** What is compared by each measure, and how it is written. */
const FIGURES: Record<string, Way> = {
  ringing: contrast('ringing, amplitude'),
  'layer-lines': contrast('banding, contrast'),
  strings: share('strings, covered, %'),
  gaps: share('gaps, area, %'),
  texture: contrast('texture, contrast'),
};

/** Figures measured on photos, each in its own light, with intervals and with what was not found. */
export function PhotoFigures(props: PhotoFiguresProps) {
  const { marks, photo, artefacts } = props;
  const keys = [...new Set(marks.flatMap((mark) => Object.keys(photo[mark.contender_id] ?? {})))];
  if (keys.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="photo-figures">
      <header className="border-b border-line px-3 py-2">
        <h2 id="photo-figures" className="font-semibold">
          Measured on photos
          <Explain term="photo-measures" />
        </h2>
        <p className="text-xs text-ink-2">
          Each dot is one specimen. Smaller is better. Photos of one light are compared with one
          another. A hollow square is a photo that shows nothing above the noise.
        </p>
      </header>
      <div className="grid gap-x-4 xl:grid-cols-2">
        {keys.sort().map((key) => {
          const [artefact = '', measure = '', light = ''] = key.split('/');
          return (
            <FigureStrips
              key={key}
              {...props}
              figure={key}
              way={FIGURES[measure] ?? contrast(measure)}
              where={`${artefacts[artefact] ?? artefact}, ${lightInWords(light)}`}
            />
          );
        })}
      </div>
    </section>
  );
}

interface FigureStripsProps extends PhotoFiguresProps {
  figure: string;
  way: Way;
  where: string;
}

/** One figure of every contender on one scale. */
function FigureStrips({ marks, photo, reference, codes, figure, way, where }: FigureStripsProps) {
  const owns = marks.map((mark) => ({ mark, own: photo[mark.contender_id]?.[figure] }));
  const scale = scaleFor(
    owns.flatMap(({ own }) =>
      own
        ? [...own.by_specimen.map(({ value }) => value), ...known(own.figure.high)].map(
            (value) => way.factor * value,
          )
        : [],
    ),
    0,
  );
  return (
    <div className="min-w-0 border-b border-line-soft">
      <h3 className="px-3 pt-2 font-semibold">
        {way.what} <span className="text-xs font-normal text-ink-2">{where}</span>
      </h3>
      <Leaving isPicture>
        <table className="w-full min-w-[480px]">
          <thead className="sr-only">
            <tr>
              <th>contender</th>
              <th>specimens</th>
              <th>figure</th>
            </tr>
          </thead>
          <tbody>
            {owns.map(({ mark, own }) => (
              <tr key={mark.contender_id}>
                <th scope="row" className="w-[150px] pl-3 text-left font-normal">
                  <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                </th>
                {own && own.figure.estimate !== null ? (
                  <KnownFigure mark={mark} own={own} way={way} scale={scale} codes={codes} />
                ) : (
                  <UnknownCell
                    span={2}
                    why={
                      own ? [...(own.figure.notes ?? []), ...own.notes].join('; ') : 'not measured'
                    }
                  />
                )}
              </tr>
            ))}
            <tr>
              <td />
              <td className="p-0">
                <StripAxis scale={scale} digits={way.digits} />
              </td>
              <td />
            </tr>
          </tbody>
        </table>
      </Leaving>
    </div>
  );
}

const known = (value: number | null): number[] => (value === null ? [] : [value]);

interface KnownFigureProps {
  mark: ContenderMark;
  own: PhotoFigure;
  way: Way;
  scale: StripScale;
  codes: Readonly<Record<string, string>>;
}

/** The strip of a contender whose figure is known, with the figure beside it. */
function KnownFigure({ mark, own, way, scale, codes }: KnownFigureProps) {
  const { estimate } = own.figure;
  // No contrast and no share is below nothing.
  const low = own.figure.low === null ? null : Math.max(0, own.figure.low);
  const { high } = own.figure;
  const said = own.found === 0 || estimate === null ? 'not found' : way.say(estimate);
  const scaled = (value: number | null) => (value === null ? null : way.factor * value);
  return (
    <>
      <td className="min-w-[160px] p-0">
        <DotStrip
          height={24}
          hue={mark.hue}
          isTuned={mark.isTuned}
          scale={scale}
          // Where nothing was found the hollow squares say so; a tick at 0 would hide them.
          interval={{
            estimate: own.found === 0 ? null : scaled(estimate),
            low: scaled(low),
            high: scaled(high),
          }}
          dots={own.by_specimen.map(({ specimen_id, value, found }) => ({
            value: way.factor * value,
            isNothing: !found,
            label: `${codes[specimen_id] ?? specimen_id}: ${found ? way.say(value) : 'not found'}`,
          }))}
          label={`${mark.label}: ${said}`}
        />
      </td>
      <td
        className="w-[150px] px-2 text-right whitespace-nowrap"
        tabIndex={own.notes.length > 0 ? 0 : undefined}
        data-hint={own.notes.join('; ') || undefined}
      >
        <span className={own.found === 0 ? '' : 'font-mono'}>{said}</span>
        <span className="block text-2xs text-ink-2">
          {own.found !== null && `on ${own.found} of ${own.specimens} · `}
          {ends({ low, high }, way.say)}
        </span>
      </td>
    </>
  );
}
