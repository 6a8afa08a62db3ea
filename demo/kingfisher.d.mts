/** A made-up scan of a kingfisher, black on paper, with a scribble at the right: grey values row by row. */
export function kingfisher(
  width?: number,
  height?: number,
): { readonly width: number; readonly height: number; readonly greys: Uint8Array };
