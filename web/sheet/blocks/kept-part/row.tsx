import { useQuery } from '@tanstack/react-query';
import type { Editor } from '@tiptap/core';
import { useState } from 'react';
import { Link } from 'react-router';
import * as v from 'valibot';
import { type Part, PartChangedSchema, PartNameSchema } from '#api/parts.ts';
import { MadeSchema } from '#api/problem.ts';
import type { KeptPart } from '#core/page/blocks/kept-part/schema.ts';
import { isAsKept, keptFrom } from '#core/page/kept-parts.ts';
import { requestJson, sayFailure } from '../../../api/client.ts';
import { partQuery, queryClient } from '../../../api/queries.ts';
import { saveOpenPages } from '../../../api/under-way.ts';
import { Form, Line } from '../../../form/form.tsx';
import { useSaveForm } from '../../../form/use-save-form.ts';
import { LabelRow } from '../../../label/row.tsx';
import { sayPageTitle } from '../../../pages/say-title.ts';
import { tellPagesChanged } from '../../../pieces/pages-changed.ts';
import { Button } from '../../../ui/button.tsx';
import { Deeds } from '../../../ui/deeds.tsx';
import { Fault } from '../../../ui/fault.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { toast } from '../../../ui/toast.ts';
import { ledger } from '../../../undo/ledger.ts';
import type { BlockRowProps } from '../kind.ts';
import { makeAsKept, namePart, unlinkPart } from './commands.ts';

/** What is kept of a part, on which pages it stands, and how it is changed on all of them. */
export function KeptPartRow({ editor, block }: BlockRowProps) {
  if (block.type !== 'keptPart') return null;
  return (
    <LabelRow name="Kept part">
      {block.attrs.part === '' ? (
        <NameForm editor={editor} block={block} />
      ) : (
        <Kept key={block.attrs.part} editor={editor} block={block} />
      )}
      <Button kind="link" onClick={() => unlinkPart(editor, block.attrs.id)}>
        {block.attrs.part === '' ? 'No part after all' : 'Unlink it: this page goes its own way'}
      </Button>
    </LabelRow>
  );
}

interface PartProps {
  readonly editor: Editor;
  readonly block: KeptPart;
}

/** A part that is set apart and not kept yet is kept under a name, and stands wherever it is added. */
function NameForm({ editor, block }: PartProps) {
  const form = useSaveForm({
    schema: v.object({ name: PartNameSchema }),
    defaults: { name: '' },
    save: async ({ name }) => {
      const { id } = await requestJson('post /parts', MadeSchema, {
        body: { name, blocks: keptFrom(block) },
      });
      await queryClient.invalidateQueries({ queryKey: ['parts'] });
      namePart(editor, block.attrs.id, id);
    },
    refusedAt: 'name',
  });
  return (
    <Form of={form}>
      <p className="text-soft">Kept, it can be added to other pages, and be changed once for all of them.</p>
      <Line of={form} name="name" label="Name of the part" placeholder="Opening hours" maxLength={200} />
      <div>
        <Button type="submit">Keep</Button>
      </div>
    </Form>
  );
}

function Kept({ editor, block }: PartProps) {
  const { data: part, error, refetch } = useQuery(partQuery(block.attrs.part));
  const [isAsking, setAsking] = useState(false);
  if (error) return <Fault says={sayFailure(error)} />;
  if (!part) return null;
  const isSame = isAsKept(block, part.blocks);
  return (
    <>
      <p>
        <b className="font-semibold">{part.name}</b>,{' '}
        {part.pages.length < 2 ? 'on this page alone' : `on ${part.pages.length} pages`}.
        {isSame ? '' : ' It is changed here.'}
      </p>
      {isSame ? null : (
        <div className="flex flex-wrap gap-x-3 gap-y-1">
          <Button onClick={() => void refetch().then(() => setAsking(true))}>Change it everywhere…</Button>
          <Button onClick={() => makeAsKept(editor, block.attrs.id, part.blocks)}>As it is kept</Button>
        </div>
      )}
      <ChangePanel part={part} block={block} isOpen={isAsking} onClose={() => setAsking(false)} />
    </>
  );
}

interface ChangePanelProps {
  readonly part: Part;
  readonly block: KeptPart;
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

/** The pages are shown before a part is changed on them. */
function ChangePanel({ part, block, isOpen, onClose }: ChangePanelProps) {
  const [fault, setFault] = useState<string | null>(null);
  // The page that one is on may be on its way to the server with the very change.
  const others = part.pages.filter(({ id }) => !location.pathname.endsWith(`/${id}`));
  const [own, same] = [others.filter(({ isOwn }) => isOwn), others.filter(({ isOwn }) => !isOwn)];
  const change = async () => {
    try {
      const before = { name: part.name, blocks: part.blocks };
      const after = { name: part.name, blocks: keptFrom(block) };
      const changed = await changeTo(part.id, after);
      ledger.add({
        name: `changing “${part.name}” everywhere`,
        scope: 'kept parts',
        undo: async () => void (await changeTo(part.id, before)),
        redo: async () => void (await changeTo(part.id, after)),
      });
      toast(`“${part.name}” is changed on ${changed === 1 ? 'one other page' : `${changed} other pages`}.`);
      onClose();
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <Panel
      title={`Change “${part.name}” everywhere`}
      about="What stands in it on this page is kept, and stands on every page that has it."
      isOpen={isOpen}
      onClose={onClose}
    >
      <PageList
        says={same.length === 0 ? 'It stands on no other page yet.' : 'It changes on:'}
        pages={same}
      />
      {own.length > 0 ? (
        <PageList says="It was changed there for itself, and stays as it is, on:" pages={own} />
      ) : null}
      <Fault says={fault} />
      <Deeds>
        <Button kind="action" onClick={() => void change()}>
          {same.length === 0
            ? 'Change it'
            : `Change it on ${same.length === 1 ? 'one page' : `${same.length} pages`}`}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </Deeds>
    </Panel>
  );
}

function PageList({ says, pages }: { readonly says: string; readonly pages: Part['pages'] }) {
  return (
    <div className="mt-3">
      <p>{says}</p>
      <ul className="list-disc pl-5">
        {pages.map(({ id, title }) => (
          <li key={id}>
            <Link className="underline" to={`/pages/${id}`}>
              {sayPageTitle(title)}
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Changes a part on the version that is known here, and answers on how many pages. */
async function changeTo(id: string, wish: Pick<Part, 'name' | 'blocks'>): Promise<number> {
  await saveOpenPages();
  const { queryKey } = partQuery(id);
  const { version } = await queryClient.fetchQuery({ ...partQuery(id), staleTime: 0 });
  const { changed } = await requestJson('put /parts/{id}', PartChangedSchema, {
    path: { id },
    body: wish,
    version,
  });
  await queryClient.invalidateQueries({ queryKey });
  tellPagesChanged();
  return changed;
}
