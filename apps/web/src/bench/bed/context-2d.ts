/** Drawn on by the page, or by a worker. */
export type Context2D = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
