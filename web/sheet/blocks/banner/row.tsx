import { useMemo, useState } from 'react';
import { plateFor, sayContrast } from '#core/media/over-contrast.ts';
import { bannerAt } from '#core/page/blocks/banner/judged.ts';
import type { Banner, BannerPosition } from '#core/page/blocks/banner/schema.ts';
import { LEAST_BANNER_PX } from '#core/page/blocks/banner/set.ts';
import { kindOf } from '#core/page/blocks/kinds.ts';
import { columnRoom } from '#core/page/room.ts';
import { sayFinding } from '#core/proof/say.ts';
import { LabelRow } from '../../../label/row.tsx';
import { Places } from '../../../over/places.tsx';
import { usePieces } from '../../../pieces/pieces.ts';
import { useLit } from '../../../proof/use-lit.ts';
import { Checkbox } from '../../../ui/checkbox.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { ColourField } from '../../../ui/colour.tsx';
import { changeBlock } from '../../commands.ts';
import type { BlockRowProps } from '../kind.ts';
import { TakeApartLink } from '../take-apart-link.tsx';
import { WholeLinkField } from '../whole-link-field.tsx';

const POSITIONS: readonly (readonly [BannerPosition, string])[] = [
  ['column', 'column'],
  ['breakout', 'breakout'],
  ['bleed', 'bleed'],
];

/** How wide a banner is, where its words stand over the picture and in which colours, where it leads, and whether they stand out. */
export function BannerRow({ editor, block, rules }: BlockRowProps) {
  if (block.type !== 'banner') return null;
  const { id, position, place, ink, plate, link } = block.attrs;
  const keep = (change: Partial<Banner['attrs']>, name: string) => changeBlock(editor, id, change, name);
  return (
    <LabelRow name="Banner">
      <OneOf
        about="Width of the banner"
        value={position}
        choices={POSITIONS}
        onChoose={(chosen) => keep({ position: chosen }, 'the width of the banner')}
      />
      <Places place={place} onChoose={(chosen) => keep({ place: chosen }, 'where the words stand')} />
      <div className="flex flex-wrap gap-2">
        <KeptColour
          name="Ink"
          value={ink}
          onKeep={(chosen) => keep({ ink: chosen }, 'the ink of the words')}
        />
        <Checkbox
          checked={plate !== null}
          onChange={(isOn) => keep({ plate: isOn ? plateFor(ink) : null }, 'the plate under the words')}
        >
          On a plate
        </Checkbox>
        {plate === null ? null : (
          <KeptColour
            name="Plate"
            value={plate}
            onKeep={(chosen) => keep({ plate: chosen }, 'the plate under the words')}
          />
        )}
      </div>
      <Standing block={block} rules={rules} />
      <WholeLinkField editor={editor} id={id} what="banner" value={link} />
      <TakeApartLink editor={editor} id={id} change="taking the banner apart" />
    </LabelRow>
  );
}

interface KeptColourProps {
  readonly name: string;
  readonly value: string;
  readonly onKeep: (colour: string) => void;
}

/** A colour that is kept when its choice is left. */
function KeptColour({ name, value, onKeep }: KeptColourProps) {
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <ColourField
      name={name}
      value={chosen ?? value}
      onMove={setChosen}
      onLet={(colour) => {
        if (colour !== value) onKeep(colour);
        setChosen(null);
      }}
    />
  );
}

/** What the proof finds of it, or how well its words stand out where they do so least. */
function Standing({ block, rules }: { readonly block: Banner; readonly rules: BlockRowProps['rules'] }) {
  const page = useMemo(() => ({ blocks: [block] }), [block]);
  const pieces = useLit(usePieces(), page);
  const kind = kindOf(block);
  const room = columnRoom(rules);
  const found = kind.findings?.(block, room, { rules, pieces, headings: [] }) ?? [];
  if (found.length > 0)
    return found.map((one) => {
      const { sentence, why } = sayFinding(one);
      return (
        <p key={one.code} className="text-due">
          {sentence} {why}
        </p>
      );
    });
  const inner = kind.inside?.room(room, block, { rules, pieces }, 0) ?? room;
  const [worst] = rules.proofWidths
    .flatMap((viewport) => bannerAt(block, { rules, pieces }, inner, viewport)?.contrast ?? [])
    .sort((one, other) => one.is - other.is);
  return (
    <p>
      {worst ? `${sayContrast(worst.is, worst.needed, block.attrs.plate !== null)} ` : ''}
      Under {LEAST_BANNER_PX} px the words stand below the picture.
    </p>
  );
}
