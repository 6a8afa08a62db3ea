import { type ColourKey, drawnPaint } from '@lambent/core/colours';
import { firstRun, type Item, type JobDocument, type Pixels, usualTraceSettings } from '@lambent/core/document';
import { addItems, hideItems, pinItems } from '@lambent/core/edits';
import { addFollowing, outlinesOfItems } from '@lambent/core/fit';
import { borderAround, identity, multiply, scaling, transformPath, translation } from '@lambent/core/geometry';
import { labelOperation } from '@lambent/core/operations';
import { tracePicture } from '@lambent/core/pictures/trace';

/*
 * The demo jobs that begin with a picture.
 */

/** A picture as wide as is wanted, in mm, with its top left corner at a place of the bed. */
function placed(picture: Item, widthMm: number, x: number, y: number): Item {
  const mm = picture.shape.kind === 'picture' ? widthMm / picture.shape.width : 1;
  return { ...picture, matrix: multiply(translation(x, y), scaling(mm, mm)) };
}

/** A photo on slate, with a line around it. */
export function benchPlaque(job: JobDocument, picture: Item, key: ColourKey): JobDocument {
  const photo = placed(picture, 120, 15, 15);
  const line: Item = {
    ...picture,
    ...drawnPaint(key, labelOperation),
    id: 'demo.line',
    name: 'Line around',
    shape: { kind: 'rectangle', x: 10, y: 10, width: 130, height: 90, rx: 3, ry: 3 },
    matrix: identity,
  };
  const drawn = addItems(job, [photo, line], []);
  return pinItems(drawn, new Set([photo.id]), 'photo');
}

/** A silhouette found in a scan, without the scribble beside it: engraved from behind, and cut out with a border. */
export function kingfisherPiece(job: JobDocument, picture: Item, pixels: Pixels): JobDocument {
  const scan = placed(picture, 150, 30, 30);
  const { width, height } = pixels;
  const right = 0.82 * width;
  const part = [
    { x: 0, y: 0 },
    { x: right, y: 0 },
    { x: right, y: height },
    { x: 0, y: height },
  ];
  const settings = { ...usualTraceSettings, part };
  const [{ path }] = tracePicture(pixels, settings, 150 / width);
  let made = 0;
  const place = { fate: 'stays', guideId: null, follows: true, newId: () => `demo.${++made}` } as const;
  const traced = { kind: 'traced', sources: [scan], settings, path: transformPath(path, scan.matrix) } as const;
  const bird = addFollowing(addItems(job, [scan], []), [traced], { ...place, layerId: 'engrave' });
  const sources = bird.job.drawing.items.filter(({ id }) => bird.ids.includes(id));
  const around = { by: 5, bridgeGap: 0, bridgeWidth: 8, inletWidth: 0, innerRadius: 0, loop: null };
  const border = borderAround(outlinesOfItems(sources), around).path;
  const edge = addFollowing(bird.job, [{ kind: 'border', sources, settings: around, path: border }], {
    ...place,
    layerId: 'cut',
  });
  const runs = [{ ...firstRun, name: 'From behind', mirrored: true }];
  return { ...hideItems(edge.job, new Set([scan.id]), true), runs };
}
