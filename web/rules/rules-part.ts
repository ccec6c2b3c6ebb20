import type { HouseRules } from '#core/page/target.ts';

/** A part of the rules: what it is now, and how a change of it is said. */
export interface RulesPart {
  readonly rules: HouseRules;
  readonly change: (part: Partial<HouseRules>) => void;
}
