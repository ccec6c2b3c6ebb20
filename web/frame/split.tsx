import { Fragment, type ReactNode, useState } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { cx } from '../ui/cx.ts';
import { AtPlace, AtPlaces } from './places.tsx';
import { useIsNarrow } from './use-is-narrow.ts';

/** One of the panes of a screen. The one without a width takes what the others leave. */
interface Pane {
  readonly id: string;
  /** What is drawn wider or narrower at its edge, in words. */
  readonly name: string;
  /** In px, to begin with and at least; none for the work itself. */
  readonly width?: { readonly usual: number; readonly least: number };
  /** What is there, in a word or two, where it is a place of a narrow screen. */
  readonly says?: string;
  readonly content: ReactNode;
}

/** Takes no room of its own: a px of it would put what is centred beside it between two px of the screen. */
const SEPARATOR_LOOK =
  'relative z-1 outline-offset-0 after:absolute after:inset-y-0 after:-left-px after:w-px hover:after:bg-action focus-visible:after:bg-action data-[separator=active]:after:bg-action aria-[orientation=horizontal]:h-0 aria-[orientation=horizontal]:after:inset-x-0 aria-[orientation=horizontal]:after:-top-px aria-[orientation=horizontal]:after:h-px aria-[orientation=horizontal]:after:w-auto aria-[orientation=vertical]:w-0';

interface SplitProps {
  /** Under which the widths that a person drew are remembered. */
  readonly id: string;
  readonly panes: readonly Pane[];
  readonly className?: string;
  /** From which width down the panes stand one under the other. */
  readonly stacks?: 'narrow' | 'middle';
  /** On a narrow screen the panes are places that one goes to, and this is the first that is looked at. */
  readonly firstPlace?: string;
}

/** Of the height of a narrow screen, what stands under the work gets this much. */
const UNDER = '42%';
const LEAST_WORK_PX = 280;
/** The usual width of the label, as the theme's `label`. */
export const LABEL_PX = 344;

/**
 * Panes side by side whose edges are drawn by hand or by arrow keys, each as wide as it was left. On a narrow screen they
 * are places that one goes to, or stand one under the other.
 */
export function Split({ firstPlace, ...panes }: SplitProps) {
  const isNarrow = useIsNarrow();
  return isNarrow && firstPlace ? <PanePlaces first={firstPlace} {...panes} /> : <Panes {...panes} />;
}

function PanePlaces({ first, panes, className }: SplitProps & { readonly first: string }) {
  const [here, setHere] = useState(first);
  const places = panes.map(({ id, name, says = '' }) => ({
    name: placeName(name),
    says,
    isHere: id === here,
    go: () => setHere(id),
  }));
  return (
    <AtPlaces about="Places of this screen" places={places} className={className}>
      {panes.map(({ id, content }) => (
        <AtPlace key={id} isHere={id === here}>
          {content}
        </AtPlace>
      ))}
    </AtPlaces>
  );
}

/** "the pieces" as the name of a place: "Pieces". */
function placeName(name: string): string {
  const bare = name.replace(/^the /, '');
  return `${bare.charAt(0).toUpperCase()}${bare.slice(1)}`;
}

function Panes({ id, panes, className, stacks = 'narrow' }: Omit<SplitProps, 'firstPlace'>) {
  const isNarrow = useIsNarrow(stacks);
  const layout = useDefaultLayout({
    id: `${id}${isNarrow ? ' narrow' : ''}`,
    panelIds: panes.map((pane) => pane.id),
    storage: localStorage,
  });
  return (
    <Group
      key={String(isNarrow)}
      className={cx('min-h-0 min-w-0', className)}
      orientation={isNarrow ? 'vertical' : 'horizontal'}
      {...layout}
    >
      {panes.map((pane, at) => {
        const sized = pane.width ?? panes[at - 1]?.width;
        return (
          <Fragment key={pane.id}>
            {at > 0 && sized ? (
              <Separator
                className={cx(
                  SEPARATOR_LOOK,
                  // What begins a screen is set off by its ground; the label by a line.
                  pane.width && 'after:bg-line',
                )}
                aria-label={`Size of ${(pane.width ? pane : panes[at - 1])?.name ?? ''}`}
              />
            ) : null}
            <Panel
              id={pane.id}
              className="grid min-h-0 min-w-0 *:min-h-0"
              {...(pane.width
                ? isNarrow
                  ? { defaultSize: UNDER, minSize: '15%' }
                  : {
                      defaultSize: `${pane.width.usual}px`,
                      minSize: `${pane.width.least}px`,
                      maxSize: '55%',
                      groupResizeBehavior: 'preserve-pixel-size' as const,
                    }
                : { minSize: isNarrow ? '20%' : `${LEAST_WORK_PX}px` })}
            >
              {pane.content}
            </Panel>
          </Fragment>
        );
      })}
    </Group>
  );
}
