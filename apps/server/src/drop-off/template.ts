import type { ColourKey } from '@lambent/core/colours';
import { drawingTemplate as templateOf, writePdf, writeSvg } from '@lambent/core/formats';
import { sheetMarginMm } from '@lambent/core/recipes';
import { shippedTools } from '@lambent/fonts';

/** A page to draw on: as large as a bed, in mm, with the colours of a key. */
export interface TemplateTask {
  readonly bed: { readonly width: number; readonly height: number };
  readonly key: ColourKey;
  readonly title: string;
  readonly format: 'svg' | 'pdf';
}

/** Writes the page as a file. */
export async function drawingTemplate({ bed, key, title, format }: TemplateTask): Promise<Uint8Array> {
  const outgoing = templateOf(bed, sheetMarginMm, key, shippedTools().fonts);
  return format === 'svg' ? new TextEncoder().encode(writeSvg(outgoing)) : writePdf([outgoing], title);
}
