import { useState } from 'react';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { stepsOf } from '#core/media/recipe-says.ts';
import { sayTone } from '#core/media/tone.ts';
import { pieces } from '../pieces/pieces.ts';
import { Field } from '../ui/field.tsx';
import { FolderInput } from '../ui/folder-input.tsx';
import { Select } from '../ui/select.tsx';
import { useStore } from '../ui/store.ts';
import { RunCard } from './run-card.tsx';
import type { RunPart } from './sizes-card.tsx';

/** Where the pieces go, and whose recipe they are given. */
export function PlaceCard({ order, change }: RunPart) {
  return (
    <RunCard id="run-place" title="Folder and recipe">
      <FolderField order={order} change={change} />
      <RecipeField order={order} change={change} />
    </RunCard>
  );
}

function FolderField({ order, change }: RunPart) {
  const [typed, setTyped] = useState(order.folder ?? '');
  return (
    <Field name="Folder" hint={order.folder === null ? 'Each stays in its own.' : 'A new one is made.'}>
      {(control) => (
        <FolderInput
          {...control}
          placeholder="as they are"
          value={typed}
          onChange={(folder) => {
            setTyped(folder);
            change({ folder: folder.trim() === '' ? null : folder });
          }}
        />
      )}
    </Field>
  );
}

/** The recipes of the pieces in this run, and "as it came" for taking all of them back to that. */
function RecipeField({ order, change }: RunPart) {
  const known = useStore(pieces);
  const prepared = order.pieces.flatMap((id) => {
    const asset = known.get(id);
    return asset && stepsOf(asset.prep, sayTone).length > 0 ? [asset] : [];
  });
  const asCame = 'as it came';
  const value =
    order.recipe === null
      ? ''
      : (prepared.find(({ prep }) => JSON.stringify(prep) === JSON.stringify(order.recipe?.prep))?.id ??
        asCame);
  const choose = (chosen: string) => {
    const model = prepared.find(({ id }) => id === chosen);
    if (model) change({ recipe: { from: model.label.title || model.stem, prep: model.prep } });
    else change({ recipe: chosen === asCame ? { from: asCame, prep: AS_IT_CAME } : null });
  };
  const steps = order.recipe ? stepsOf(order.recipe.prep, sayTone) : [];
  return (
    <Field name="Recipe" hint={steps.map(({ says }) => says).join(' ')}>
      {(control) => (
        <Select
          {...control}
          value={value}
          choices={[
            ['', 'Each keeps its own'],
            ...prepared.map((asset) => [asset.id, `All like ${asset.label.title || asset.stem}`] as const),
            [asCame, 'None: all as they came'],
          ]}
          onChoose={choose}
        />
      )}
    </Field>
  );
}
