import { useRef, useState } from 'react';
import type { HouseRules } from '#core/page/target.ts';
import { partsThatDiffer, readTargetFile, writeTargetFile } from '#core/page/target-file.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';

interface TargetFileProps {
  readonly rules: HouseRules;
  /** Takes what a file says as what is written here; nothing holds before it is saved. */
  readonly onTake: (rules: HouseRules) => void;
}

/** A target as open JSON: taken away, and another taken in, as differences to agree to by saving them. */
export function TargetFile({ rules, onTake }: TargetFileProps) {
  const chooser = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [differing, setDiffering] = useState<readonly string[] | null>(null);
  const take = async (file: File) => {
    const read = readTargetFile(await file.text());
    setFault(read.kind === 'refused' ? read.sentence : null);
    setDiffering(read.kind === 'read' ? partsThatDiffer(rules, read.rules) : null);
    if (read.kind === 'read') onTake(read.rules);
  };
  return (
    <div className="border-b border-line py-3">
      <div className="flex flex-wrap items-center gap-2.5">
        <p className="text-soft">The description of {rules.name} as open JSON:</p>
        <a
          className={buttonLook({ kind: 'link' })}
          download={`${rules.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.target.json`}
          href={`data:application/json;charset=utf-8,${encodeURIComponent(writeTargetFile(rules))}`}
        >
          Take it away
        </a>
        <Button kind="link" onClick={() => chooser.current?.click()}>
          Take another in
        </Button>
        <input
          ref={chooser}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="Description of a target"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) void take(file);
            event.target.value = '';
          }}
        />
      </div>
      <Fault says={fault} />
      {differing === null ? null : (
        <p role="status">
          {differing.length === 0
            ? 'It says what holds already.'
            : `It says otherwise: ${differing.join(', ')}. Look through it, and save the rules to agree.`}
        </p>
      )}
    </div>
  );
}
