/*
 * What a group of an SVG says of the layer that its parts are on. Writing needs the names alone, and no reader.
 */

export const layerAttribute = 'data-lambent-layer';
export const operationAttribute = 'data-lambent-operation';
