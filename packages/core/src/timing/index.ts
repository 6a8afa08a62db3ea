export { corrected, driftOf, withMotion } from './drift.ts';
export { type FittedFigure, fitMotion, type TimedFigure, type TimingFit } from './fit-motion.ts';
export { type CardPart, secondsOf, timingCard } from './timing-card.ts';
