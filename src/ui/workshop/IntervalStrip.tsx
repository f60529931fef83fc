import type { Interval } from '../../core/statistics/stats';
import { DotStrip, type StripScale } from '../marks/DotStrip';

/** An estimate with its interval on a shared scale, without the values behind it. */
export function IntervalStrip(props: {
  hue: number;
  scale: StripScale;
  interval: Interval;
  label: string;
}) {
  return (
    <DotStrip
      hue={props.hue}
      isTuned
      scale={props.scale}
      dots={[]}
      interval={props.interval}
      label={props.label}
      height={26}
    />
  );
}
