import { NO_GRADIENT, type PlateFit } from '../../core/measures/metrology/plate';
import { Leaving } from '../kit/Leaving';
import type { ContenderMark } from '../../core/model/study';
import type { PlatePage, PlatePoint } from '../../contract/results';
import { fixed, signed } from '../lib/format';
import { PlaceDisc } from '../marks/PlaceDisc';
import { ContenderName } from '../marks/ContenderName';

interface PlateMapsProps extends PlatePage {
  studyId: string;
  query: string;
  marks: readonly ContenderMark[];
  reference: string | null;
}

const SIZE = 150;
/** Radius of the largest disc: those at the edge are whole. */
const DISC_MM = 18;

/** Whether a tilt is there, by its p. */
function trendWords(p: number | null): string {
  if (p === null) return 'not tested';
  if (p >= 0.05) return `not beyond the noise (p\u00a0${fixed(p, 2)})`;
  return `it is there (p\u00a0${p < 0.001 ? '< 0.001' : fixed(p, 3)})`;
}

/** Deviation by place on the plate, every contender on one scale of colour and size. */
export function PlateMaps(props: PlateMapsProps) {
  const { choices, chosen, points, fits, marks, reference, query, studyId } = props;
  const all = Object.values(points).flat();
  const largest = Math.max(0.001, ...all.map((point) => Math.abs(point.deviation_mm)));
  const reach =
    Math.max(10, ...all.flatMap((point) => [Math.abs(point.x), Math.abs(point.y)])) + 1.1 * DISC_MM;
  const shown = marks.filter((mark) => (points[mark.contender_id] ?? []).length > 0);
  const figures = [
    ['contender', 'places', 'x mm', 'y mm', 'deviation mm'],
    ...shown.flatMap((mark) =>
      meanByPlace(points[mark.contender_id] ?? []).map((place) => [
        mark.label,
        place.codes,
        place.x,
        place.y,
        Number(place.deviation_mm.toFixed(4)),
      ]),
    ),
  ];
  const more = query === '' ? '?' : `${query}&`;
  return (
    <section className="mt-3 min-w-0 sheet" aria-labelledby="plate">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <div>
          <h2 id="plate" className="font-semibold">
            Over the plate
          </h2>
          <p className="text-xs text-ink-2">
            each place’s mean deviation on one scale; ring = too small, full = too large, largest{' '}
            {fixed(largest, 3)} mm
          </p>
        </div>
        <nav aria-label="Dimension" className="flex flex-wrap gap-1 text-xs">
          {choices.map((choice) => (
            <a
              key={choice.key}
              className={`action ${choice.key === chosen ? 'action-main' : ''}`}
              aria-current={choice.key === chosen ? 'true' : undefined}
              href={`/studies/${studyId}/results/accuracy${more}plate=${encodeURIComponent(choice.key)}#plate`}
            >
              {choice.name}
            </a>
          ))}
        </nav>
      </header>
      <Leaving isPicture figures={figures}>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(160px,1fr))] gap-3 p-3 max-sm:grid-cols-2">
          {shown.map((mark) => {
            const fit = fits[mark.contender_id];
            const places = meanByPlace(points[mark.contender_id] ?? []);
            return (
              <PlateMap
                key={mark.contender_id}
                mark={mark}
                reference={reference}
                reach={reach}
                places={places}
                largest={largest}
                fit={fit}
              />
            );
          })}
        </div>
      </Leaving>
    </section>
  );
}

interface PlateMapProps {
  mark: ContenderMark;
  reference: PlateMapsProps['reference'];
  reach: number;
  places: (PlatePoint & { codes: string })[];
  largest: number;
  fit: PlateFit | undefined;
}

/** One contender’s plate, each place as an arrow by its deviation. */
function PlateMap({ mark, reference, reach, places, largest, fit }: PlateMapProps) {
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1">
        <ContenderName mark={mark} isReference={mark.contender_id === reference} />
      </figcaption>
      <svg
        className="block max-w-full border border-line"
        width={SIZE}
        height={SIZE}
        viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
        role="img"
        aria-label={
          `${mark.label}: ` +
          places
            .map(
              ({ x, y, deviation_mm }) =>
                `${fixed(x, 0)} ${fixed(y, 0)} ${signed(deviation_mm, 3)} mm`,
            )
            .join('; ')
        }
      >
        <line x1={-reach} x2={reach} y1={0} y2={0} stroke="var(--line-soft)" />
        <line y1={-reach} y2={reach} x1={0} x2={0} stroke="var(--line-soft)" />
        {places.map((place) => (
          <PlaceDisc
            key={`${place.x} ${place.y}`}
            {...place}
            largest={largest}
            radius={DISC_MM}
            hint={`${place.codes}: ${signed(place.deviation_mm, 3)} mm`}
          />
        ))}
      </svg>
      <p className="mt-1 text-2xs text-ink-2">
        {fit?.gradient_x_um_per_100mm == null || fit.gradient_y_um_per_100mm === null
          ? (fit?.notes.join('; ') ?? NO_GRADIENT)
          : `tilt ${signed(fit.gradient_x_um_per_100mm, 0)} along x, ` +
            `${signed(fit.gradient_y_um_per_100mm, 0)} along y, µm per 100 mm; ` +
            trendWords(fit.trend_p)}
      </p>
    </figure>
  );
}

function meanByPlace(points: readonly PlatePoint[]): (PlatePoint & { codes: string })[] {
  const groups = new Map<string, PlatePoint[]>();
  for (const point of points) {
    const key = `${point.x} ${point.y}`;
    const group = groups.get(key);
    if (group) group.push(point);
    else groups.set(key, [point]);
  }
  return [...groups.values()].flatMap((group) => {
    const [first] = group;
    if (!first) return [];
    const deviation_mm = group.reduce((sum, point) => sum + point.deviation_mm, 0) / group.length;
    return [{ ...first, deviation_mm, codes: group.map((point) => point.code).join(', ') }];
  });
}
