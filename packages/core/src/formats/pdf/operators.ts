/*
 * Every operator that the PDF package may hand over, and what becomes of it. One that has no line here, or that the
 * package was to resolve and did not, is noted where it comes up: nothing that may draw is passed over.
 */

/**
 * `followed`: it has a case in `page-reader.ts` or `page-text.ts`. `resolved`: the package turns it into others. `no
 * bearing`: it changes neither what is drawn nor its colour. Anything else is what is said where it comes up.
 */
export const operatorKinds: Readonly<Record<string, string>> = {
  ...listed(
    'followed',
    'dependency setLineWidth setLineCap setLineJoin setDash setGState save restore transform constructPath clip eoClip',
    'stroke closeStroke fill eoFill fillStroke eoFillStroke closeFillStroke closeEOFillStroke endPath',
    'beginText setCharSpacing setWordSpacing setHScale setLeading setFont setTextRenderingMode setTextRise moveText',
    'setLeadingMoveText setTextMatrix nextLine showText setStrokeColorN setFillColorN setStrokeRGBColor setFillRGBColor',
    'setStrokeTransparent setFillTransparent shadingFill beginMarkedContent beginMarkedContentProps endMarkedContent',
    'paintFormXObjectBegin paintFormXObjectEnd beginGroup endGroup paintImageXObject paintInlineImageXObject',
    'paintInlineImageXObjectGroup paintImageXObjectRepeat paintImageMaskXObject paintImageMaskXObjectGroup',
    'paintImageMaskXObjectRepeat paintSolidColorImageMask',
  ),
  ...listed(
    'resolved',
    'moveTo lineTo curveTo curveTo2 curveTo3 closePath rectangle showSpacedText nextLineShowText',
    'nextLineSetSpacingShowText setStrokeColorSpace setFillColorSpace setStrokeColor setFillColor setStrokeGray',
    'setFillGray setStrokeCMYKColor setFillCMYKColor beginInlineImage beginImageData endInlineImage paintXObject',
    'rawFillPath beginAnnotation endAnnotation',
  ),
  ...listed(
    'no bearing',
    'setRenderingIntent setFlatness endText setCharWidth setCharWidthAndBounds markPoint markPointProps beginCompat',
    'endCompat',
  ),
  setMiterLimit: 'sharp corners of a wide stroke keep their points up to 4 times its width',
};

/** Entries of a graphics state that are not followed, with why; those that bear on nothing are not among them. */
export const unreadStates: Readonly<Record<string, { readonly usual: readonly unknown[]; readonly said: string }>> = {
  BM: { usual: ['Normal', 'Compatible', 'source-over'], said: 'colours that blend are taken as they are' },
  ML: { usual: [4, 10], said: 'sharp corners of a wide stroke keep their points up to 4 times its width' },
};

function listed(kind: string, ...names: string[]): Record<string, string> {
  return Object.fromEntries(names.flatMap((line) => line.split(' ')).map((name) => [name, kind]));
}
