import { attributeText, type Named } from '../embed/markup.ts';
import { pixels } from './page-address.ts';

/** Pictures said to be smaller than this on both edges are marks and buttons, and smaller than `RULE_PX` on one are rules. */
const ICON_PX = 48;
const RULE_PX = 12;
/** What stands in a page's head or foot is a mark unless it is said to be as wide as this. */
const WIDE_PX = 400;

const tokens = (text: string) => text.slice(0, 1000).toLowerCase().split(/[\s]+/).filter(Boolean);

/** Words that file names and classes of page furniture are made of, with nothing else beside numbers and directions. */
const FURNITURE = new RegExp(
  `^(?:(?:${[
    'icons?|ico|arrows?|bullets?|buttons?|btn|logos?|sprites?|dividers?|separators?|rules?|hr|lines?|badges?|rss|feed|social|share|print|email|mail|search',
    'close|menu|burger|hamburger|next|prev|previous|back|top|up|down|left|right|more|plus|minus|play|pause|home|star|check|tick|cross|chevron|caret',
    'loading|spinner|avatar|emoji|smiley|spacer|blank|pixel|clear|dot|counter|banner|corner|shadow|bg|background|nav|header|footer|site|brand',
    'mark|wordmark|small|large|white|black|dark|light|grey|gray|blue|red|green|red|sm|lg|xs|xl|svg|gif|png|hover|active|off|on|new|the|of|and|to|img|image|graphic|gfx|\\d{1,4}(?:x\\d{1,4})?(?:px)?',
  ].join('|')})(?:[-_. ]+|$))+$`,
);
/** At least one of these, since a picture may well be called "right.jpg". */
const MARK =
  /(?:^|[-_. ])(?:icons?|ico|arrows?|bullets?|buttons?|btn|logos?|sprites?|dividers?|separators?|badges?|rss|spinner|avatar|emoji|smiley|spacer|blank|pixel|chevron|caret|hr|wordmark|counter)(?:\d{0,3})(?:[-_. ]|$)/;
const MARK_CLASS =
  /^(?:[a-z0-9]{1,20}[-_])?(?:icon|ico|logo|bullet|arrow|spacer|divider|separator|emoji|smiley|avatar|byline|author|profile|badge|sprite|tracking|pixel|btn|button|spinner|loader)(?:[-_][a-z0-9]{1,20})?$/;

/** Whether an element holds the head, the foot or the ways of a page, by its name, its role, or what it is called. */
export function isOfEveryPage(tag: Named, isInContent: boolean): boolean {
  if (tag.name === 'footer' || tag.name === 'nav') return true;
  if (tag.name === 'header') return !isInContent;
  const role = attributeText(tag, 'role').toLowerCase();
  if (role === 'banner' || role === 'contentinfo' || role === 'navigation') return true;
  if (isInContent || !/^(?:div|table|td|tr|ul|section|center|aside|span)$/.test(tag.name)) return false;
  const called = [...tokens(attributeText(tag, 'id')), ...tokens(attributeText(tag, 'class'))];
  return called.some((one) => OF_EVERY_PAGE.test(one));
}

const OF_EVERY_PAGE =
  /^(?:(?:site|page|main|global|top)[-_]?)?(?:header|masthead|topbar|footer|bottombar|nav|navi|navigation|navbar|menu|menubar|breadcrumbs?|social|sharing|share|toolbar|pagination|pager|sponsors?|partners?|funders?|ads?|adverts?|advertisements?|banner-ad|kopf|fuss)(?:[-_](?:inner|wrap|wrapper|container|links|bar))?$/;

/** What is asked of an image before it is offered. */
interface Seen {
  readonly tag: Named;
  /** Its best file, or the empty text. */
  readonly address: string;
  readonly alt: string;
  /** Whether it stands in the head, the foot or the ways of the page. */
  readonly isMark: boolean;
  readonly isInFigure: boolean;
  /** Whether a link about it says under which licence, or leads to the site's own front. */
  readonly isSign: boolean;
}

/** Whether an image is furniture of the page, as spacers, rules, counters, arrows, buttons, marks are, and no picture on it. */
export function isNoContent({ tag, address, alt, isMark, isInFigure, isSign }: Seen): boolean {
  const [width, height] = sizeSaid(tag);
  if (isUnseen(tag)) return true;
  if (width > 0 && height > 0 && width < ICON_PX && height < ICON_PX) return true;
  if ((width > 0 && width < RULE_PX) || (height > 0 && height < RULE_PX)) return true;
  if (isSign) return true;
  if (isInFigure) return false;
  if (isMark) return !(width >= WIDE_PX || (isPhoto(address) && width === 0 && alt.split(/\s+/).length >= 3));
  if (isAdvertised(address)) return true;
  const isLarge = width >= 4 * ICON_PX && height >= 4 * ICON_PX;
  return !isLarge && isCalledMark(tag, address);
}

/** What is paid for lies in a folder of its own more often than not. */
function isAdvertised(address: string): boolean {
  return (
    !address.startsWith('data:') &&
    /\/(?:ads?|adverts?|advertising|sponsors?|banners?)\//i.test(new URL(address).pathname)
  );
}

/** Names that a drawing on a page of before has, and nothing else beside a number. */
const MARK_ALONE = /^(?:new|neu|hot|back|home|next|prev|up|down|mail|email|top|ball|dot)\d{0,2}$/;

function isCalledMark(tag: Named, address: string): boolean {
  if (tokens(attributeText(tag, 'class')).some((one) => MARK_CLASS.test(one))) return true;
  if (address.startsWith('data:')) return false;
  const name = decoded(new URL(address).pathname.split('/').at(-1) ?? '')
    .toLowerCase()
    .replace(/\.[a-z]{3,4}$/, '');
  if (MARK_ALONE.test(name) && !isPhoto(address)) return true;
  return MARK.test(name) && FURNITURE.test(name.replace(/(?<=[a-z])(?=\d)/g, '-'));
}

const isPhoto = (address: string) => /\.(?:jpe?g|webp|avif|tiff?)(?:[?#]|$)/i.test(address);

/** Declared in attributes or in the style. */
function sizeSaid(tag: Named): readonly [width: number, height: number] {
  const style = attributeText(tag, 'style').slice(0, 2000);
  const said = (name: string) =>
    pixels(attributeText(tag, name)) ||
    pixels(new RegExp(`(?:^|[;\\s])${name}\\s{0,9}:\\s{0,9}(\\d{1,5}px)`, 'i').exec(style)?.[1] ?? '');
  return [said('width'), said('height')];
}

/** Counters are hidden, or stand where nobody looks. A size of 0 hides as well. */
function isUnseen(tag: Named): boolean {
  const style = attributeText(tag, 'style').slice(0, 2000);
  if (
    /(?:display\s{0,9}:\s{0,9}none|visibility\s{0,9}:\s{0,9}hidden|(?:left|top)\s{0,9}:\s{0,9}-\d{3,5}px)/i.test(
      style,
    )
  )
    return true;
  if (tag.attributes.some(({ name }) => name === 'hidden')) return true;
  return /^0(?:px)?$/.test(attributeText(tag, 'width')) && /^0(?:px)?$/.test(attributeText(tag, 'height'));
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
