import { type FormEvent, useEffect, useId, useRef, useState } from 'react';
import { type FoundFile, filesOfFolder } from '../arrivals/dropped.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { FolderChoices } from '../ui/folder-choices.tsx';
import { Input } from '../ui/input.tsx';
import { Popover, PopoverContent, PopoverTrigger } from '../ui/popover.tsx';

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
  // Not an attribute that React knows.
  useEffect(() => whole.current?.setAttribute('webkitdirectory', ''), []);
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
      <span className="text-soft">
        into <FolderField folder={folder} onFolder={onFolder} />
      </span>
      <input
        ref={files}
        type="file"
        accept="image/*"
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

function AddressField({ onAddress }: { readonly onAddress: (address: string) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (address.trim() === '') return;
    setOpen(false);
    onAddress(address.trim());
  };
  return (
    <Popover open={isOpen} onOpenChange={setOpen}>
      <PopoverTrigger asChild>
        <Button kind="link">Give any address</Button>
      </PopoverTrigger>
      <PopoverContent aria-label="An address">
        <form className="grid w-80 gap-2 p-1.5" onSubmit={submit}>
          <Field name="Address of a picture, or of a page that shows it">
            {(control) => (
              <Input
                {...control}
                placeholder="https://"
                value={address}
                onChange={(event) => setAddress(event.target.value)}
              />
            )}
          </Field>
          <Button type="submit" kind="action">
            Read it
          </Button>
        </form>
      </PopoverContent>
    </Popover>
  );
}

function FolderField({
  folder,
  onFolder,
}: {
  readonly folder: string;
  readonly onFolder: (folder: string) => void;
}) {
  const listId = useId();
  return (
    <>
      <input
        className="min-h-6 w-37.5 border-b border-control px-1 py-px font-mono text-mono text-ink placeholder:text-soft"
        aria-label="Folder that it goes into"
        placeholder="no folder"
        list={listId}
        maxLength={400}
        value={folder}
        onChange={(event) => onFolder(event.target.value)}
      />
      <FolderChoices id={listId} />
    </>
  );
}
