import { channelsOf } from '@lambent/core/document';
import { type CSSProperties, useEffect, useRef } from 'react';

/** Dots as they burn, a pixel each: in one colour where nothing burns, in another where all does. */
export function BurntDots(props: {
  columns: number;
  rows: number;
  /** A byte for each dot, 0 where nothing burns and 255 where all does; null while it is not known. */
  burnt: Uint8ClampedArray | null;
  bareColour: string;
  burntColour: string;
  className: string;
  style?: CSSProperties;
}) {
  const { columns, rows, burnt, bareColour, burntColour, className, style } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !burnt) return;
    const [from, to] = [channelsOf(bareColour), channelsOf(burntColour)];
    const image = context.createImageData(columns, rows);
    for (const [dot, value] of burnt.entries()) {
      for (let k = 0; k < 3; k++) image.data[4 * dot + k] = from[k] + ((to[k] - from[k]) * value) / 255;
      image.data[4 * dot + 3] = 255;
    }
    context.putImageData(image, 0, 0);
  }, [columns, rows, burnt, bareColour, burntColour]);
  return <canvas ref={canvas} width={columns} height={rows} className={className} style={style} aria-hidden />;
}
