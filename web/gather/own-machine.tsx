import { useEffect, useRef, useState } from 'react';
import * as v from 'valibot';
import { ACCEPTED_FILES } from '../arrivals/accepted.ts';
import { type FoundFile, filesOfFolder } from '../arrivals/dropped.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { useOffer } from '../frame/commands.ts';
import { RecordPanel } from '../record/record-panel.tsx';
import { Button } from '../ui/button.tsx';
import { FolderInput } from '../ui/folder-input.tsx';
import { Opens } from '../ui/opens.tsx';

interface OwnMachineProps {
  readonly folder: string;
  readonly onFolder: (folder: string) => void;
  readonly onFiles: (files: readonly FoundFile[]) => void;
  readonly onAddress: (address: string) => void;
}

/** What comes from the own machine or from an address: files, whole folders, any address; and the folder it goes into. */
export function OwnMachine({ folder, onFolder, onFiles, onAddress }: OwnMachineProps) {
  const files = useRef<HTMLInputElement>(null);
  const whole = useRef<HTMLInputElement>(null);
  const [isRecording, setRecording] = useState(false);
  // Not an attribute that React knows.
  useEffect(() => whole.current?.setAttribute('webkitdirectory', ''), []);
  useOffer([
    { words: 'Choose files of this machine', act: () => files.current?.click() },
    { words: 'Choose a whole folder of this machine', act: () => whole.current?.click() },
    { words: 'Record a film or a sound', act: () => setRecording(true) },
  ]);
  return (
    <>
      <span className="text-soft">or</span>
      <AddressField onAddress={onAddress} />
      <Button kind="link" onClick={() => files.current?.click()}>
        Choose files
      </Button>
      <Button kind="link" onClick={() => whole.current?.click()}>
        A whole folder
      </Button>
      <Button kind="link" onClick={() => setRecording(true)}>
        Record...
      </Button>
      {isRecording ? <RecordPanel onFiles={onFiles} onClose={() => setRecording(false)} /> : null}
      <span className="text-soft">
        into{' '}
        <FolderInput
          className="min-h-6 w-37.5 rounded-none border-0 border-b bg-transparent px-1 py-px"
          aria-label="Folder that it goes into"
          placeholder="no folder"
          value={folder}
          onChange={onFolder}
        />
      </span>
      <input
        ref={files}
        type="file"
        accept={ACCEPTED_FILES}
        multiple
        hidden
        aria-label="Files to gather"
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])].map((file) => ({ file, folder: '' })));
          event.target.value = '';
        }}
      />
      <input
        ref={whole}
        type="file"
        hidden
        aria-label="A folder to gather"
        onChange={(event) => {
          onFiles(filesOfFolder([...(event.target.files ?? [])]));
          event.target.value = '';
        }}
      />
    </>
  );
}

const AddressSchema = v.object({
  address: v.pipe(v.string(), v.trim(), v.minLength(1, 'Give an address.'), v.maxLength(4000)),
});

function AddressField({ onAddress }: { readonly onAddress: (address: string) => void }) {
  return (
    <Opens about="An address" trigger={<Button kind="link">Give any address</Button>}>
      {(close) => (
        <AddressForm
          onAddress={(address) => {
            close();
            onAddress(address);
          }}
        />
      )}
    </Opens>
  );
}

function AddressForm({ onAddress }: { readonly onAddress: (address: string) => void }) {
  const form = useSaveForm({
    schema: AddressSchema,
    defaults: { address: '' },
    save: ({ address }) => onAddress(address),
  });
  return (
    <Form of={form} className="w-80 gap-2 p-1.5">
      <Line
        of={form}
        name="address"
        label="Address of a picture, or of a page that shows it"
        placeholder="https://"
      />
      <Button type="submit" kind="action">
        Read it
      </Button>
    </Form>
  );
}
