import * as v from 'valibot';
import { FilterSchema } from '#core/deliver/filter.ts';
import { isWebAddress } from '#core/rights/web-address.ts';

/** How far a sending is: its files go, the page was handed over, it is ready to be pasted, it is out, it was taken down again. */
const DELIVERY_STATES = ['sending', 'handing', 'ready', 'out', 'down'] as const;

/** One thing that does not stand there as it was sent. `spot` counts the things of its kind in what was sent and in what stands there. */
const DifferenceSchema = v.object({
  code: v.string(),
  /** Whether readers miss something by it. */
  isLost: v.boolean(),
  sentence: v.string(),
  why: v.string(),
  spot: v.nullable(
    v.object({
      kind: v.picklist(['picture', 'heading']),
      sent: v.number(),
      found: v.nullable(v.number()),
    }),
  ),
});
export type SaidDifference = v.InferOutput<typeof DifferenceSchema>;

/** One sending of a page to its target, and what was found when it was read back. */
export const DeliverySchema = v.object({
  id: v.string(),
  pageId: v.string(),
  targetId: v.string(),
  targetName: v.string(),
  by: v.string(),
  at: v.string(),
  state: v.picklist(DELIVERY_STATES),
  title: v.string(),
  /** Where it stands, once the target has said so. */
  address: v.nullable(v.string()),
  /** When it was last read back; null before. */
  foundAt: v.nullable(v.string()),
  /** How many of its pictures answered, of how many. */
  answered: v.string(),
  /** What of it loads at first there, in bytes; null before it was read back. */
  foundBytes: v.nullable(v.number()),
  /** Why it is not out, or could not be read back. */
  words: v.string(),
  jobId: v.string(),
  differences: v.array(DifferenceSchema),
  /** Where what was sent and what was found can be looked at, on the other origin; null before they are known. */
  frames: v.object({ sent: v.nullable(v.string()), found: v.nullable(v.string()) }),
});
export type Delivery = v.InferOutput<typeof DeliverySchema>;

const moment = v.nullable(v.pipe(v.string(), v.isoTimestamp('A moment is written as 2026-03-29T06:30:00Z.')));

/** When a page goes out by itself, and when it is taken down; null for by hand. */
export const SendingPlanWishSchema = v.strictObject({ startAt: moment, endAt: moment });
export type SendingPlanWish = v.InferOutput<typeof SendingPlanWishSchema>;

/** What is planned: it waits to go out, is out and waits to be taken down, is done, or came to nothing, with why. */
const SendingPlanSchema = v.object({
  startAt: v.nullable(v.string()),
  endAt: v.nullable(v.string()),
  state: v.picklist(['waiting', 'out', 'done', 'failed']),
  by: v.string(),
  words: v.string(),
});
export type SendingPlan = v.InferOutput<typeof SendingPlanSchema>;

/** Another target than that a page was begun for. */
export const ToTargetSchema = v.strictObject({ target: v.optional(v.pipe(v.string(), v.maxLength(36))) });

/** The sendings of a page to one target, the newest first; whether it can be sent at all, and why not. */
export const DeliveriesSchema = v.object({
  targetId: v.string(),
  /** Whether this is the target that the page was begun for. */
  isOwnTarget: v.boolean(),
  /** All targets that it was sent to, by ID. */
  sentTo: v.array(v.string()),
  targetName: v.string(),
  /** Whether its pages are pasted there by hand. */
  isPasted: v.boolean(),
  isPossible: v.boolean(),
  why: v.string(),
  /** What stops the page as it is now from going out, worst first, in sentences. */
  stops: v.array(v.string()),
  deliveries: v.array(DeliverySchema),
  plan: v.nullable(SendingPlanSchema),
  /** In which the days of its target begin and end. */
  timeZone: v.string(),
});

export type Deliveries = v.InferOutput<typeof DeliveriesSchema>;

/** Where a page stands since somebody pasted it there. */
export const PastedAtSchema = v.strictObject({
  address: v.pipe(
    v.string(),
    v.trim(),
    v.maxLength(2000),
    v.check(isWebAddress, 'Give its whole address there, which begins with https:// or http://.'),
  ),
});

/** What a probe has shown of a target: what it does not keep, and whose frames came through of those that were tried. */
export const LearnedSchema = v.object({
  filter: FilterSchema,
  frames: v.array(v.string()),
  tried: v.array(v.string()),
  /** Where the probe stands still, because the target did not let it be taken down; null otherwise. */
  left: v.nullable(v.string()),
});
export type LearnedAnswer = v.InferOutput<typeof LearnedSchema>;

/** Where a probe was pasted; null where it is sent. */
export const ProbeWishSchema = v.strictObject({ address: v.nullable(PastedAtSchema.entries.address) });

/** What would become of a page if it was sent now. Frames as of a delivery; null where nothing has to be looked at. */
export const ForeseenSchema = v.object({
  differences: v.array(DifferenceSchema),
  frames: v.object({ sent: v.string(), found: v.string() }),
});
export type Foreseen = v.InferOutput<typeof ForeseenSchema>;

/** The code of a sending, as it is pasted. */
export const SentCodeSchema = v.object({ html: v.string() });
/** What opens a target to the house: a token, a password, or a private key of several lines. It is never answered again. */
export const TokenSchema = v.strictObject({
  token: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Give what opens the target, as the site gave it.'),
    v.maxLength(10_000, 'This is longer than any key.'),
  ),
});
/** Since when a target has one; null for none. */
export const TokenSetSchema = v.object({ since: v.nullable(v.string()) });
