import { useQuery } from '@tanstack/react-query';
import { FolderSchema } from '#api/assets.ts';
import { may } from '#api/people.ts';
import { withAncestors } from '#core/naming/paths.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { useFolderPaths } from '../ui/folder-paths.ts';
import { Opens } from '../ui/opens.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';

interface FolderDeedsProps {
  /** The folder that is open; empty for none. */
  readonly folder: string;
  readonly isEmpty: boolean;
  readonly onChoose: (folder: string) => void;
}

/** Making a folder, and moving, renaming or removing the open one. */
export function FolderDeeds({ folder, isEmpty, onChoose }: FolderDeedsProps) {
  const { data: me } = useQuery(meQuery);
  const { made: there } = useFolderPaths();
  if (!me || !may(me.role, 'say-rights')) return null;
  const remove = async () => {
    try {
      await removeFolder(folder);
      ledger.add({
        name: `removing ${folder}`,
        scope: 'shelf',
        undo: async () => void (await makeFolder(folder)),
        redo: () => removeFolder(folder),
      });
      onChoose('');
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <div className="flex flex-col items-start pt-1 pr-2 pl-2.75">
      <PathForm
        words="New folder..."
        field="New folder"
        hint="Folders in a folder are parted by /."
        path={folder ? `${folder}/` : ''}
        deed="Make it"
        onPath={async (path) => {
          const made = await makeFolder(path);
          // Those above it that came with it go with it.
          const fresh = withAncestors(made).filter((one) => !there.includes(one));
          ledger.add({
            name: `the folder ${made}`,
            scope: 'shelf',
            undo: async () => {
              for (const one of fresh.toReversed()) await removeFolder(one);
            },
            redo: async () => void (await makeFolder(made)),
          });
          onChoose(made);
        }}
      />
      {folder ? (
        <PathForm
          words="Move or rename..."
          field={`New path of ${folder}`}
          hint="All that lies in it goes along. No page is touched."
          path={folder}
          deed="Move it"
          onPath={async (path) => {
            const moved = await moveFolder(folder, path);
            if (moved === folder) return;
            ledger.add({
              name: `moving ${folder}`,
              scope: 'shelf',
              undo: async () => void (await moveFolder(moved, folder)),
              redo: async () => void (await moveFolder(folder, moved)),
            });
            onChoose(moved);
          }}
        />
      ) : null}
      {folder === '' ? <Sections /> : null}
      {folder && isEmpty ? (
        <Button kind="link" onClick={() => void remove()}>
          Remove it
        </Button>
      ) : null}
    </div>
  );
}

/** The sections of the sites that no folder mirrors yet, made all at once. */
function Sections() {
  const { made, missing } = useFolderPaths();
  if (missing.length === 0) return null;
  const name = missing.length === 1 ? `the folder ${missing[0]}` : `${missing.length} folders`;
  const make = () =>
    makeFolders(missing, made, name).catch((error: unknown) => void toast.error(sayFailure(error)));
  const names = missing.length > 3 ? `${missing.slice(0, 3).join(', ')}...` : missing.join(', ');
  return (
    <p>
      No folder yet for {missing.length === 1 ? 'a section' : `${missing.length} sections`} of the site:{' '}
      <span className="font-mono text-mono">{names}</span>{' '}
      <Button kind="link" onClick={() => void make()}>
        {missing.length === 1 ? 'Make it' : 'Make them'}
      </Button>
    </p>
  );
}

/** Makes folders with those above them that are not there yet; one undo removes all of these again. */
async function makeFolders(paths: readonly string[], there: readonly string[], name: string): Promise<void> {
  const fresh = [...new Set(paths.flatMap(withAncestors))].filter((path) => !there.includes(path));
  const make = async () => {
    for (const path of fresh) await makeFolder(path);
  };
  await make();
  const undo = async () => {
    for (const path of fresh.toReversed()) await removeFolder(path);
  };
  ledger.add({ name, scope: 'shelf', undo, redo: make });
}

async function makeFolder(path: string): Promise<string> {
  const made = await requestJson('post /folders', FolderSchema, { body: { path } });
  refresh();
  return made.path;
}

async function moveFolder(from: string, to: string): Promise<string> {
  const moved = await requestJson('post /folders/move', FolderSchema, { body: { from, to } });
  refresh();
  return moved.path;
}

async function removeFolder(path: string): Promise<void> {
  await requestVoid('post /folders/remove', { body: { path } });
  refresh();
}

function refresh(): void {
  for (const key of ['folders', 'shelf', 'asset']) void queryClient.invalidateQueries({ queryKey: [key] });
}

interface PathFormProps {
  readonly words: string;
  readonly field: string;
  readonly hint: string;
  readonly path: string;
  readonly deed: string;
  readonly onPath: (path: string) => Promise<void>;
}

function PathForm({ words, onPath, ...fields }: PathFormProps) {
  return (
    <Opens about={fields.field} trigger={<Button kind="link">{words}</Button>}>
      {(close) => (
        <PathFields
          {...fields}
          onPath={async (typed) => {
            await onPath(typed);
            close();
          }}
        />
      )}
    </Opens>
  );
}

function PathFields({ field, hint, path, deed, onPath }: Omit<PathFormProps, 'words'>) {
  const form = useSaveForm({
    schema: FolderSchema,
    defaults: { path },
    refusedAt: 'path',
    save: (typed) => onPath(typed.path),
  });
  return (
    <Form of={form} className="w-75 justify-items-start gap-2 p-1.5">
      <Line of={form} className="w-full" name="path" label={field} hint={hint} isMono maxLength={420} />
      <Button kind="action" type="submit">
        {deed}
      </Button>
    </Form>
  );
}
