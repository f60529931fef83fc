import { useEffect, useRef } from 'react';
import { defectLook, encoded, type DefectName } from '../../../core/measures/image';

interface GradeLookProps {
  defect: DefectName;
  grade: number;
}

const [WIDTH, HEIGHT] = [132, 96];

/** How a defect looks by a grade: a rendered face, so that inspectors mean the same. */
export function GradeLook({ defect, grade }: GradeLookProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const look = defectLook(defect, grade);
    const picture = context.createImageData(WIDTH, HEIGHT);
    for (let at = 0; at < WIDTH * HEIGHT; at += 1) {
      const light = look(((at % WIDTH) + 0.5) / WIDTH, (Math.floor(at / WIDTH) + 0.5) / HEIGHT);
      const grey = Math.round(255 * encoded(light * 0.6));
      picture.data.set([grey, grey, grey, 255], 4 * at);
    }
    context.putImageData(picture, 0, 0);
  }, [defect, grade]);
  return (
    <canvas
      ref={canvas}
      width={WIDTH}
      height={HEIGHT}
      data-look={`${defect} ${grade}`}
      aria-hidden="true"
      className="mb-1 block w-full"
    />
  );
}
