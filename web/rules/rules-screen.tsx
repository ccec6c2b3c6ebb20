import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { may } from '#api/people.ts';
import { type Target, TargetSchema } from '#api/targets.ts';
import { type HouseRules, HouseRulesSchema } from '#core/page/target.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { meQuery, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Empty } from '../ui/empty.tsx';
import { FAULT_LOOK } from '../ui/fault.tsx';
import { FieldSet } from '../ui/field-set.tsx';
import { Select } from '../ui/select.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { ColumnCard } from './column-card.tsx';
import { CutsCard } from './cuts-card.tsx';
import { EmbedsCard } from './embeds-card.tsx';
import { FilmsCard } from './films-card.tsx';
import { FindingsCard } from './findings-card.tsx';
import { HostsCard } from './hosts-card.tsx';
import { LogCard } from './log-card.tsx';
import { NamesCard } from './names-card.tsx';
import { NewTarget } from './new-target.tsx';
import { PeopleCard } from './people-card.tsx';
import { ReachCard } from './reach-card.tsx';
import type { RulesPart } from './rules-part.ts';
import { SendingCard } from './sending-card.tsx';
import { SpendingCard } from './spending-card.tsx';
import { StylesCard } from './styles-card.tsx';
import { TargetFile } from './target-file.tsx';
import { UseCard } from './use-card.tsx';

export function RulesScreen() {
  const targets = useQuery(targetsQuery);
  const me = useQuery(meQuery);
  const [chosen, setChosen] = useState<string | null>(null);
  if (!targets.data || !me.data) return <Unanswered isScreen of={[targets, me]} />;
  const target = targets.data.find((one) => one.id === (chosen ?? 'reserve')) ?? targets.data[0];
  if (!target) return <Empty>There is no target yet.</Empty>;
  return (
    <Rules
      key={`${target.id} ${target.version}`}
      target={target}
      targets={targets.data}
      isEditable={may(me.data.role, 'set-rules')}
      onChoose={setChosen}
    />
  );
}

interface RulesProps {
  readonly target: Target;
  readonly targets: readonly Target[];
  readonly isEditable: boolean;
  readonly onChoose: (id: string) => void;
}

function Rules({ target, targets, isEditable, onChoose }: RulesProps) {
  const [rules, setRules] = useState(target.rules);
  const [fault, setFault] = useState<string | null>(null);
  const [isAdding, setAdding] = useState(false);
  const client = useQueryClient();
  const checked = v.safeParse(HouseRulesSchema, rules);
  const isChanged = JSON.stringify(rules) !== JSON.stringify(target.rules);
  const part: RulesPart = { rules, change: (next) => setRules({ ...rules, ...next }) };

  const send = async (next: HouseRules) => {
    const known = client.getQueryData(targetsQuery.queryKey)?.find((one) => one.id === target.id);
    await requestJson('put /targets/{id}', TargetSchema, {
      path: { id: target.id },
      body: next,
      version: known?.version ?? target.version,
    });
    await client.invalidateQueries();
  };
  const save = async () => {
    setFault(null);
    try {
      await send(rules);
      ledger.add({
        name: 'the house rules',
        scope: 'rules',
        undo: () => send(target.rules),
        redo: () => send(rules),
      });
      toast('House rules saved. They hold for every page from now on.');
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const issue = checked.success
    ? null
    : `${v.getDotPath(checked.issues[0]) ?? ''}: ${checked.issues[0].message}`;
  return (
    <div className="relative h-full overflow-auto px-8.5 pt-5.5 pb-15 max-middle:px-3 max-middle:pt-3.5 max-middle:pb-15">
      <div className="mx-auto max-w-290">
        <header className="flex flex-wrap items-end gap-x-4.5 gap-y-3 border-b-2 border-ink pb-3">
          <h1 className="text-4xl">House rules</h1>
          <p className="min-w-60 flex-1 text-soft">
            {isEditable
              ? 'What holds for every page of a target, and what a page must have before it goes out.'
              : 'Set by the site owner. You can read them here.'}
          </p>
          <Select
            className="w-50"
            aria-label="Target"
            value={target.id}
            choices={targets.map((one) => [one.id, one.rules.name] as const)}
            onChoose={onChoose}
          />
          {isEditable ? (
            <Button aria-expanded={isAdding} onClick={() => setAdding(!isAdding)}>
              Targets...
            </Button>
          ) : null}
          {isEditable ? (
            <Button kind="action" disabled={!isChanged || !checked.success} onClick={() => void save()}>
              Save rules
            </Button>
          ) : null}
        </header>
        {isAdding ? (
          <NewTarget
            like={target}
            onMade={(id) => {
              setAdding(false);
              onChoose(id);
            }}
            onClose={() => setAdding(false)}
          />
        ) : null}
        {isAdding ? <TargetFile rules={rules} onTake={setRules} /> : null}
        {fault || (isChanged && issue) ? (
          <p className={cx(FAULT_LOOK, 'mt-2.5')} role="alert">
            {fault ?? issue}
          </p>
        ) : null}
        <FieldSet
          className="mt-5 grid grid-cols-2 items-start gap-5 max-middle:grid-cols-1"
          disabled={!isEditable}
        >
          <ColumnCard {...part} />
          <UseCard {...part} />
          <ReachCard {...part} />
          <CutsCard {...part} />
          <StylesCard {...part} />
          <NamesCard {...part} />
          <SendingCard {...part} targetId={target.id} isEditable={isEditable} isSaved={!isChanged} />
          <EmbedsCard {...part} />
          <FilmsCard {...part} />
          <FindingsCard {...part} />
        </FieldSet>
        <HostsCard isEditable={isEditable} />
        {isEditable ? <SpendingCard /> : null}
        {isEditable ? <PeopleCard /> : null}
        {isEditable ? <LogCard /> : null}
      </div>
    </div>
  );
}
