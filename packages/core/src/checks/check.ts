import type { BurnPlan } from '../plan/plan.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { withAccepted } from './accept.ts';
import { checkBeamPath } from './beam-path.ts';
import { checkBlocked } from './blocked.ts';
import { checkBuiltStock } from './built-stock.ts';
import type { FindingLevel } from './catalogue.ts';
import { checkCodes } from './codes.ts';
import { checkCrossingCuts } from './crossing-cuts.ts';
import { checkCrossingFills } from './crossing-fills.ts';
import { checkDecided } from './decided.ts';
import { checkDetail } from './detail.ts';
import { checkGaps, checkLeftOver } from './every-layer.ts';
import { checkFading } from './fading.ts';
import { checkFields } from './fields.ts';
import type { Check, Finding } from './finding.ts';
import { checkHeat } from './heat.ts';
import { checkKerf, checkSharedCuts, checkSharpCorners, checkThin } from './kerf.ts';
import { checkLanding } from './landing.ts';
import { checkOpenCuts, checkOpenEngraves, checkTwice, checkWaiting } from './lines.ts';
import { checkLoose } from './loose.ts';
import {
  checkBurnable,
  checkCancelling,
  checkColours,
  checkFlips,
  checkNearMisses,
  checkOrder,
  checkRuns,
  checkUnseen,
} from './meaning.ts';
import { checkCutsInTwo, checkLongEngraving, checkMirrored } from './meant.ts';
import { checkMiddles } from './middles.ts';
import { checkMissed } from './missed.ts';
import { checkParked } from './parked.ts';
import { checkBed, checkSheet, checkSheetPlaces } from './placement.ts';
import { checkScanDirection } from './scan-direction.ts';
import { checkScanOffset } from './scan-offset.ts';
import { checkFaint, checkRunUp, checkSettings } from './settings.ts';
import { checkTextFrame } from './text-frame.ts';
import { checkWhite } from './white.ts';

const checks: readonly Check[] = [
  checkBurnable,
  checkColours,
  checkNearMisses,
  checkRuns,
  checkLanding,
  checkBed,
  checkBeamPath,
  checkSheet,
  checkSheetPlaces,
  checkBlocked,
  checkSettings,
  checkFaint,
  checkWaiting,
  checkOpenCuts,
  checkCutsInTwo,
  checkOpenEngraves,
  checkMissed,
  checkTwice,
  checkGaps,
  checkLeftOver,
  checkOrder,
  checkCancelling,
  checkCrossingFills,
  checkWhite,
  checkFlips,
  checkCrossingCuts,
  checkKerf,
  checkSharedCuts,
  checkThin,
  checkBuiltStock,
  checkDetail,
  checkFields,
  checkTextFrame,
  checkCodes,
  checkSharpCorners,
  checkMiddles,
  checkLoose,
  checkHeat,
  checkRunUp,
  checkScanDirection,
  checkScanOffset,
  checkLongEngraving,
  checkMirrored,
  checkUnseen,
  checkFading,
  checkParked,
  checkDecided,
];

const weight: Record<FindingLevel, number> = { blocks: 0, warns: 1, notes: 2 };

/** Everything the checks find in a job and its plan, what blocks first. */
export function checkJob(prepared: PreparedJob, plan: BurnPlan): Finding[] {
  const found = checks.flatMap((check) => check(prepared, plan)).sort((a, b) => weight[a.level] - weight[b.level]);
  return withAccepted(found, prepared.job);
}

/** Whether something is found that keeps the job from the machine. */
export function blocks(findings: readonly Finding[]): boolean {
  return findings.some((finding) => finding.level === 'blocks');
}
