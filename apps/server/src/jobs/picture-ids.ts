/** The ids of the pictures that a drawing shows, found in its JSON. */
export function pictureIdsIn(drawingJson: string): Set<string> {
  return new Set(Array.from(drawingJson.matchAll(/"pictureId":"([0-9a-f]{64})"/g), ([, id]) => id));
}
