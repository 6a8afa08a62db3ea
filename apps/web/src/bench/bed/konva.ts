// The core of the canvas with the shapes that are drawn here: the whole of it is larger by dozens of shapes and filters.
import 'konva/lib/shapes/Circle.js';
import 'konva/lib/shapes/Line.js';
import 'konva/lib/shapes/Rect.js';
import 'konva/lib/shapes/Text.js';
import 'konva/lib/shapes/Transformer.js';

export {
  Circle,
  Group,
  Layer,
  Line,
  Rect,
  Shape,
  Stage,
  Text,
  Transformer,
} from 'react-konva/lib/ReactKonvaCore.js';
