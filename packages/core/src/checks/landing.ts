import { landingWords } from '../document/run.ts';
import { type LandingNeed, landingNeeds } from '../plan/landing.ts';
import { type Check, finding } from './finding.ts';

/** What to do where a landing lacks something. */
const remedies: Readonly<Record<LandingNeed, string>> = {
  mark: 'Mark one (M)',
  head: 'Connect the machine, or say where its head stands',
  sheet: 'Lay one',
  marks: 'Touch them',
};

/** Marks that stay further than this from where they were touched are said, in mm. */
const exactMm = 0.2;

/** A run that lands somewhere that is not known, or on marks that do not fit it. */
export const checkLanding: Check = ({ run, landed }) => {
  const { needs, errorMm } = landed;
  if (needs) {
    const words = `${run.name} is to land ${landingWords[run.landing.kind]}. ${landingNeeds[needs]} ${remedies[needs]}, or burn it as drawn.`;
    return [finding('no-landing', 'blocks', words)];
  }
  if (errorMm <= exactMm) return [];
  const words = `The two points of ${run.name} are touched further apart, or nearer, than they are drawn: each stays ${errorMm.toFixed(2)} mm from where it was touched. Touch them again, or let the run be scaled.`;
  return [finding('marks-apart', 'warns', words)];
};
