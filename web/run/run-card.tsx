import type { ReactNode } from 'react';
import { Card } from '../ui/card.tsx';

interface RunCardProps {
  readonly id: string;
  readonly title: string;
  readonly children: ReactNode;
}

/** One thing that a run does. */
export function RunCard({ id, title, children }: RunCardProps) {
  return (
    <Card className="flex flex-col gap-2 px-3.5 pt-2.5 pb-3.5" aria-labelledby={id}>
      <h2 className="text-lg" id={id}>
        {title}
      </h2>
      {children}
    </Card>
  );
}
