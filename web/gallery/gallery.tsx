import { type ReactNode, useState } from 'react';
import { MemoryRouter } from 'react-router';
import { MeasuredField } from '../form/measured-field.tsx';
import { Dimension, Hatch } from '../measure/dimension.tsx';
import { Ruler } from '../measure/ruler.tsx';
import { Choice, Sentence } from '../sentence/sentence.tsx';
import { Table } from '../table/table.tsx';
import { chooseTheme, theme } from '../theme/theme.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Chips, OneOf } from '../ui/chips.tsx';
import { Choose } from '../ui/choose.tsx';
import { ColourField } from '../ui/colour.tsx';
import { DateInput } from '../ui/date-input.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Empty } from '../ui/empty.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { FieldSet } from '../ui/field-set.tsx';
import { Folded } from '../ui/folded.tsx';
import { Input, TextArea } from '../ui/input.tsx';
import { Alert, AlertAction, AlertCancel, AlertContent, AlertTrigger, Panel } from '../ui/panel.tsx';
import { Popover, PopoverContent, PopoverTrigger } from '../ui/popover.tsx';
import { Progress } from '../ui/progress.tsx';
import { RadioList } from '../ui/radio-list.tsx';
import { Select } from '../ui/select.tsx';
import { Slider } from '../ui/slider.tsx';
import { useStore } from '../ui/store.ts';
import { Tip } from '../ui/tip.tsx';

/** Every control of the product in every state, for those who work on it; no part of what is built. */
export default function Gallery() {
  const current = useStore(theme);
  return (
    <MemoryRouter>
      <main className="mx-auto grid h-full max-w-290 grid-cols-[repeat(auto-fill,minmax(min(340px,100%),1fr))] content-start gap-5 overflow-auto p-5">
        <header className="col-span-full flex items-center justify-between border-b-2 border-ink pb-3">
          <h1 className="text-4xl">Controls</h1>
          <Button onClick={() => chooseTheme(current === 'dark' ? 'light' : 'dark')}>
            {current === 'dark' ? 'Light theme' : 'Dark theme'}
          </Button>
        </header>
        <Buttons />
        <Typed />
        <Chosen />
        <Opened />
        <Measured />
        <Said />
      </main>
    </MemoryRouter>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Card className="grid content-start gap-3 px-4.5 pt-3.5 pb-4.5" aria-label={title}>
      <h2 className="text-lg">{title}</h2>
      {children}
    </Card>
  );
}

function Buttons() {
  return (
    <Part title="Buttons">
      <div className="flex flex-wrap items-center gap-2">
        <Button>Plain</Button>
        <Button kind="action">Action</Button>
        <Button kind="quiet">Quiet</Button>
        <Button kind="link">Link</Button>
        <LinkButton to="/">A way</LinkButton>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button disabled>Plain, off</Button>
        <Button kind="action" disabled>
          Action, off
        </Button>
        <Button aria-pressed>Pressed</Button>
        <Button disabled aria-busy>
          Busy
        </Button>
      </div>
      <div className="flex gap-2 bg-bar p-2 [--focus-ground:transparent] [--focus:var(--color-bar-ink)]">
        <Button kind="bar">On the bar</Button>
        <Tip words="What it does">
          <Button kind="bar">With a tip</Button>
        </Tip>
      </div>
    </Part>
  );
}

function Typed() {
  const [date, setDate] = useState('2026-03-12');
  const [text, setText] = useState('boardwalk-dawn');
  return (
    <Part title="Typed">
      <Field name="A line" hint="What it is for.">
        {(control) => <Input {...control} value={text} onChange={(event) => setText(event.target.value)} />}
      </Field>
      <Field name="A line that is wrong" fault="A name has small letters and hyphens.">
        {(control) => <Input {...control} defaultValue="Boardwalk Dawn" />}
      </Field>
      <Field name="A line that is off">
        {(control) => <Input {...control} disabled defaultValue="reed" />}
      </Field>
      <Field name="Several lines">
        {(control) => <TextArea {...control} defaultValue="A heron stands in the reeds." />}
      </Field>
      <Field name="A date">{(control) => <DateInput {...control} value={date} onChange={setDate} />}</Field>
      <MeasuredField
        name="A measure"
        says="480 px"
        read={(typed) => (/^\d+/.test(typed) ? { value: typed } : { fault: 'A width is written as 480.' })}
        onKeep={() => undefined}
      />
    </Part>
  );
}

function Chosen() {
  const [one, setOne] = useState<'whole' | '16:9' | '1:1'>('16:9');
  const [some, setSome] = useState<readonly string[]>(['avif']);
  const [isOn, setOn] = useState(true);
  const [size, setSize] = useState(60);
  const [colour, setColour] = useState('#0f5c4d');
  const press = (format: string) =>
    setSome(some.includes(format) ? some.filter((other) => other !== format) : [...some, format]);
  return (
    <Part title="Chosen">
      <Checkbox checked={isOn} onChange={setOn}>
        So or not so
      </Checkbox>
      <Checkbox checked disabled onChange={setOn}>
        So, and off
      </Checkbox>
      <Checkbox checked={false} disabled onChange={setOn}>
        Not so, and off
      </Checkbox>
      <OneOf
        about="One of a few"
        value={one}
        choices={[
          ['whole', 'whole'],
          ['16:9', '16:9'],
          ['1:1', '1:1'],
        ]}
        onChoose={setOne}
      />
      <Chips
        about="Some of a few"
        pressed={some}
        choices={[
          ['avif', 'AVIF'],
          ['webp', 'WebP'],
          ['jpeg', 'JPEG'],
        ]}
        onPress={press}
      />
      <RadioList
        about="One, a line each"
        value={one}
        choices={[
          ['whole', 'The whole picture'],
          ['16:9', 'Cut to 16:9'],
        ]}
        onChoose={setOne}
      />
      <Field name="One of a list">
        {(control) => (
          <Select
            {...control}
            value={one}
            choices={[
              ['whole', 'The whole picture'],
              ['16:9', 'Cut to 16:9'],
              ['1:1', 'Cut square'],
            ]}
            onChoose={setOne}
          />
        )}
      </Field>
      <Field name="A list that is off">
        {(control) => (
          <Select
            {...control}
            disabled
            value="a"
            choices={[['a', 'As it came']]}
            onChoose={() => undefined}
          />
        )}
      </Field>
      <Slider aria-label="Size" value={size} min={0} max={100} step={1} onChange={setSize} />
      <FieldSet disabled>
        <Slider aria-label="Size, off" value={40} min={0} max={100} step={1} onChange={setSize} />
      </FieldSet>
      <ColourField name="A colour" value={colour} onMove={setColour} />
    </Part>
  );
}

function Opened() {
  const [isOpen, setOpen] = useState(false);
  return (
    <Part title="Opened">
      <div className="flex flex-wrap gap-2">
        <Choose
          words="A list of deeds"
          choices={[
            ['a', 'Put it on a tray'],
            ['b', 'Move it'],
          ]}
          onChoose={() => undefined}
        />
        <Popover>
          <PopoverTrigger asChild>
            <Button>Beside itself</Button>
          </PopoverTrigger>
          <PopoverContent aria-label="Beside itself">
            <p className="p-1.5">What a button opens beside itself.</p>
          </PopoverContent>
        </Popover>
        <Button onClick={() => setOpen(true)}>A panel</Button>
        <Alert>
          <AlertTrigger asChild>
            <Button>A question</Button>
          </AlertTrigger>
          <AlertContent title="It is in use" about="Thrown away, it is missing on 2 pages.">
            <Deeds>
              <AlertAction asChild>
                <Button kind="action">Throw away all the same</Button>
              </AlertAction>
              <AlertCancel asChild>
                <Button>Leave it</Button>
              </AlertCancel>
            </Deeds>
          </AlertContent>
        </Alert>
      </div>
      <Panel
        title="A panel"
        about="What has to be settled first."
        isOpen={isOpen}
        onClose={() => setOpen(false)}
      >
        <Deeds>
          <Button onClick={() => setOpen(false)}>Done</Button>
        </Deeds>
      </Panel>
      <Folded words="What most need not see">
        <p>What was folded away.</p>
      </Folded>
      <Sentence>
        Show{' '}
        <Choice
          about="What"
          value="all"
          choices={[
            ['all', 'everything'],
            ['pictures', 'pictures'],
          ]}
          onChoose={() => undefined}
        />{' '}
        of the shelf
      </Sentence>
    </Part>
  );
}

function Measured() {
  return (
    <Part title="Measured">
      <Ruler start={0} length={300} />
      <div className="relative h-12">
        <Dimension
          axis="x"
          words="330 px shown of 6000"
          ground="bg-panel"
          style={{ left: 0, top: 4, width: 240 }}
        />
        <Hatch style={{ left: 250, top: 0, width: 22, height: 48 }} />
      </div>
      <Progress name="Pieces of this run" value={40} />
      <Progress name="Under way" value={null} />
    </Part>
  );
}

function Said() {
  return (
    <Part title="Said">
      <Fault says="The line was cut. What you wrote is kept." />
      <p className="text-soft">Soft words.</p>
      <p className="font-mono text-mono">heron-hide-3-480.avif</p>
      <Empty className="p-0" title="Nothing answers this question">
        <p>Ask for less, or hand pieces in.</p>
      </Empty>
      <Table
        about="A table"
        isSmall
        rows={[
          { id: 'heron', px: 900 },
          { id: 'bittern', px: 4000 },
        ]}
        keyOf={({ id }) => id}
        columns={[
          { id: 'name', heading: 'Name', sortBy: ({ id }) => id, cell: ({ id }) => id },
          { id: 'px', heading: 'Width', sortBy: ({ px }) => px, cell: ({ px }) => `${px} px` },
        ]}
      />
    </Part>
  );
}
