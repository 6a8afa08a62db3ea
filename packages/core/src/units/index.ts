export { formatClock, formatDuration } from './duration.ts';
export {
  formatLength,
  type LengthUnit,
  lengthUnits,
  type Parsed,
  parseLength,
  parseLengthFrom,
  parseLengths,
} from './length.ts';
export { lengthsIn, speedsIn } from './sentence.ts';
export { formatSpeed, parseSpeed, type SpeedUnit, speedUnits } from './speed.ts';
