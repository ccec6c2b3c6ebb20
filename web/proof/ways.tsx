import { useRef, useState } from 'react';
import type { HouseRules } from '#core/page/target.ts';
import { SEEN_AS, SEEN_AS_WORDS } from '#core/proof/seen-as.ts';
import { MeasuredField } from '../form/measured-field.tsx';
import { OneOf } from '../ui/chips.tsx';
import { Select } from '../ui/select.tsx';
import {
  isWidth,
  LEAST_WIDTH_PX,
  LOOKED_AT_WORDS,
  type Look,
  type LookedAt,
  MOST_WIDTH_PX,
  SCREENS,
  type Screen,
} from './look.ts';

interface ProofWaysProps {
  readonly look: Look;
  readonly rules: HouseRules;
  /** What there is to look at of this page. */
  readonly offered: readonly LookedAt[];
  readonly isNarrow: boolean;
  readonly onLook: (look: Look) => void;
}

const ANOTHER = 'another';

/** How a proof is looked at: what of the page, as whom, how wide, on which screen. */
export function ProofWays({ look, rules, offered, isNarrow, onLook }: ProofWaysProps) {
  const seen = SEEN_AS.filter((one) => one !== 'dark' || rules.dark).map(
    (one) => [one, SEEN_AS_WORDS[one]] as const,
  );
  const looked = offered.map((one) => [one, LOOKED_AT_WORDS[one]] as const);
  const isSeen = look.at === 'page';
  const asWhom = isSeen ? (
    <Select
      className="w-37 max-narrow:w-auto"
      aria-label="How it is seen"
      value={look.as}
      choices={seen}
      onChoose={(as) => onLook({ ...look, as })}
    />
  ) : null;
  if (isNarrow)
    return (
      <div className="grid grid-cols-2 gap-2 px-4.5 pt-2">
        <Select
          aria-label="What is looked at"
          value={look.at}
          choices={looked}
          onChoose={(at) => onLook({ ...look, at })}
        />
        {asWhom}
      </div>
    );
  return (
    <div className="flex flex-wrap items-center gap-x-4.5 gap-y-1.5 px-4.5 pt-2">
      <OneOf
        about="What is looked at"
        value={look.at}
        choices={looked}
        onChoose={(at) => onLook({ ...look, at })}
      />
      {look.at === 'words' ? null : (
        <div className="flex flex-wrap items-start gap-1.5">
          {asWhom}
          <WidthChoice look={look} rules={rules} onLook={onLook} />
          {isSeen || look.at === 'slow' ? (
            <Select
              className="w-34"
              aria-label="Screen"
              value={look.screen}
              choices={SCREENS.map((one) => [one, SCREEN_WORDS[one]] as const)}
              onChoose={(screen) => onLook({ ...look, screen })}
            />
          ) : null}
        </div>
      )}
    </div>
  );
}

const SCREEN_WORDS: Readonly<Record<Screen, string>> = {
  here: 'screen as this',
  '1': 'screen of 1x',
  '2': 'screen of 2x',
  '3': 'screen of 3x',
};

function WidthChoice({ look, rules, onLook }: Pick<ProofWaysProps, 'look' | 'rules' | 'onLook'>) {
  const [isTyping, setTyping] = useState(false);
  const typed = useRef<HTMLDivElement>(null);
  const widths = rules.proofWidths;
  const { width } = look;
  const isOther = isTyping || (width !== null && !widths.includes(width));
  return (
    <div className="flex items-start gap-1.5" ref={typed}>
      <Select
        className="w-35"
        aria-label="Width that is looked at"
        value={isOther ? ANOTHER : String(width ?? '')}
        choices={[
          ...(look.at === 'page' ? ([['', 'all its widths']] as const) : []),
          ...widths.map((one) => [String(one), `${one} px`] as const),
          [ANOTHER, 'another width'] as const,
        ]}
        takeFocus={() => {
          const field = typed.current?.querySelector('input');
          field?.focus();
          return field !== null && field !== undefined;
        }}
        onChoose={(chosen) => {
          setTyping(chosen === ANOTHER);
          if (chosen !== ANOTHER) onLook({ ...look, width: chosen === '' ? null : Number(chosen) });
        }}
      />
      {isOther ? (
        <MeasuredField
          className="w-24"
          name="Another width"
          isNameHidden
          isSmall
          inputMode="numeric"
          says={width === null ? '' : `${width} px`}
          placeholder="1024 px"
          read={(text) => {
            const typed = Number(text.replace(/\s*px$/, '').trim());
            return isWidth(typed)
              ? { value: typed }
              : { fault: `From ${LEAST_WIDTH_PX} to ${MOST_WIDTH_PX} px.` };
          }}
          onKeep={(next) => {
            setTyping(false);
            onLook({ ...look, width: next });
          }}
        />
      ) : null}
    </div>
  );
}
