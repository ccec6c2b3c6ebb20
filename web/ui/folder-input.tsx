import { useFolderPaths } from './folder-paths.ts';
import { SuggestInput, type SuggestInputProps } from './suggest-input.tsx';

/** As many as are read at a glance; more letters find the others. */
const MOST_OFFERED = 8;

/** A folder, typed or chosen from those that there are; one that is not there yet is made by being named. */
export function FolderInput(props: Omit<SuggestInputProps, 'offered' | 'listOf' | 'complete' | 'isMono'>) {
  const { made, missing } = useFolderPaths();
  return (
    <SuggestInput
      {...props}
      isMono
      listOf="Folders"
      offered={offeredFor(props.value, [...made, ...missing])}
    />
  );
}

/** The folders in which every word that is typed occurs; all of them while the field holds one of them. */
export function offeredFor(typed: string, all: readonly string[]): readonly string[] {
  const parts = all.includes(typed) ? [] : typed.toLowerCase().split(/[\s/]+/u);
  const fits = (path: string) => parts.every((part) => path.toLowerCase().includes(part));
  return all.filter(fits).slice(0, MOST_OFFERED);
}
