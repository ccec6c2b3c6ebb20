import { LabelRow } from '../label/row.tsx';
import { pieces, usePieces } from '../pieces/pieces.ts';
import { ofSheet } from '../sheet/blocks/gathered.ts';
import { choose, chosenPlaced, withoutChosen } from '../sheet/chosen-pieces.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import { Arrangements } from './arrangements.tsx';
import type { PageSession } from './use-page-session.ts';

/** The label of several pieces of the sheet, wherever they stand: what can be made of them, and how they go elsewhere. */
export function SeveralPlacedCard({ session }: { readonly session: PageSession }) {
  const { editor } = session;
  usePieces();
  const known = useStore(pieces);
  const placed = chosenPlaced(editor.state);
  const assets = placed.flatMap(({ node }) => known.get(String(node.attrs.asset)) ?? []);
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label={`Label of ${placed.length} pieces`}
    >
      <header className="pt-3 pb-2.75">
        <h2 className="font-serif text-3xl leading-tight font-normal italic">{placed.length} pieces</h2>
        <p className="mt-0.75 text-soft">of this page, as they stand on it</p>
      </header>
      <LabelRow name="Pieces">
        <ol className="list-decimal pl-5">
          {placed.map(({ id, node }) => {
            const asset = known.get(String(node.attrs.asset));
            return <li key={id}>{asset ? asset.label.title || asset.stem : 'A piece that is gone'}</li>;
          })}
        </ol>
      </LabelRow>
      <LabelRow name="Make">
        <Arrangements pieces={assets} onMake={(make) => make(editor, ofSheet(editor))} />
        <p className="text-soft">
          It stands where the first of them stood. Cut, they go together to another place or page and keep
          their settings.
        </p>
      </LabelRow>
      <LabelRow name="Choice">
        <div className="flex flex-wrap gap-x-3">
          <Button kind="link" onClick={() => withoutChosen(editor.view, 'taking pieces off the page')}>
            Take them off the page
          </Button>
          <Button kind="link" onClick={() => choose(editor, [])}>
            Choose none
          </Button>
        </div>
      </LabelRow>
    </article>
  );
}
