import { api, rollSchema, type Done, type RollRow } from '@osier/contract';
import { CHECK_RULES, codeLength, rollMeantFor, type BarcodeRule } from '@osier/core/barcodes';
import { NO_LISTS } from '@osier/core/holdings';
import { call } from '../../api/call';
import { Button, Progress, Table, type TableColumnsType } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import { inWords } from '../../parts/format';
import { LazyBars } from '../../parts/charts/LazyBars';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from './use-set-up';
import { setUpWords as wording } from './words';

const CHECKS = CHECK_RULES.map((value) => ({ value, label: wording.checkRules[value] }));
const EMPTY: RollRow['roll'] = {
  ...{ name: '', prefix: '', from: 1, to: 1000, length: 14, check: 'mod10', supplier: '' },
  ...{ branches: [], types: [], note: '', spoiled: [], warnBelow: 0, isClosed: false },
};

/** A roll to come, with numbers as the library has them on its copies. */
function emptyRoll(rules: readonly BarcodeRule[]): RollRow['roll'] {
  const rule = rules.find((r) => r.of === 'copy');
  return rule ? { ...EMPTY, prefix: rule.prefix, length: codeLength(rule), check: rule.check } : EMPTY;
}

/** Reserved runs of barcode numbers, each with how much of it is used. */
export function LabelRolls() {
  const { data } = useApi(api.suppliers.rolls);
  const rolls = data ?? [];
  const [editing, setEditing] = useState<number | 'new' | null>(null);
  const mayChange = useMay('set up');
  const lists = useSetUp()?.lists.value ?? NO_LISTS;
  const columns: TableColumnsType<RollRow> = [
    {
      key: 'name',
      title: wording.roll,
      width: 230,
      sorter: (a, b) => a.roll.name.localeCompare(b.roll.name),
      render: (_, r) => (
        <>
          <b>{r.roll.name}</b>
          {r.roll.note ? <div className="faded">{r.roll.note}</div> : null}
        </>
      ),
    },
    {
      key: 'supplier',
      title: wording.reservedFor,
      render: (_, r) =>
        r.roll.supplier || [wording.ourOwnUse, rollMeantFor(r.roll, lists)].filter(Boolean).join(': '),
    },
    {
      key: 'all',
      title: wording.numbers,
      align: 'right',
      sorter: (a, b) => a.counts.all - b.counts.all,
      render: (_, r) => inWords(r.counts.all),
    },
    {
      key: 'used',
      title: wording.used,
      width: 170,
      render: (_, r) => (
        <Progress
          percent={Math.round((100 * r.counts.used) / r.counts.all)}
          size="small"
          strokeColor="var(--willow)"
          format={() => inWords(r.counts.used)}
          aria-label={wording.ofUsed(r.counts.used, r.counts.all)}
        />
      ),
    },
    {
      key: 'spoiled',
      title: wording.spoiled,
      align: 'right',
      render: (_, r) => inWords(r.counts.spoiled),
    },
    {
      key: 'passed',
      title: wording.passed,
      align: 'right',
      render: (_, r) => inWords(r.counts.passed),
    },
    {
      key: 'left',
      title: wording.numbersLeft,
      align: 'right',
      sorter: (a, b) => a.counts.left - b.counts.left,
      render: (_, r) => (
        <>
          {r.counts.isLow ? <Mark kind="caution" name={wording.fewLeft(inWords(r.roll.warnBelow))} /> : null}{' '}
          {inWords(r.counts.left)}
        </>
      ),
    },
    {
      key: 'next',
      title: wording.next,
      render: (_, r) =>
        r.next ? <Barcode code={r.next} /> : r.roll.isClosed ? wording.rollIsClosed : wording.allUsed,
    },
    {
      key: 'change',
      title: <span className="unseen">{wording.change}</span>,
      hidden: !mayChange,
      render: (_, r) => (
        <Button size="small" onClick={() => setEditing(r.id)}>
          {wording.change}
        </Button>
      ),
    },
  ];
  return (
    <section className="stack" aria-label={wording.labelRolls}>
      <div className="row spread">
        <h2>{wording.labelRolls}</h2>
        {mayChange ? (
          <Button data-key="n" onClick={() => setEditing('new')}>
            {wording.newLabelRoll}
          </Button>
        ) : null}
      </div>
      {rolls.length > 1 ? (
        <LazyBars
          caption={wording.numbersUsedAndLeft}
          of={wording.roll}
          names={rolls.map((r) => r.roll.name)}
          series={[
            { name: wording.used.toLowerCase(), values: rolls.map((r) => r.counts.used), colour: '--willow' },
            {
              name: wording.spoiled.toLowerCase(),
              values: rolls.map((r) => r.counts.spoiled),
              colour: '--woad',
            },
            {
              name: wording.passed.toLowerCase(),
              values: rolls.map((r) => r.counts.passed),
              colour: '--ochre',
            },
            {
              name: wording.numbersLeft.toLowerCase(),
              values: rolls.map((r) => r.counts.left),
              colour: '--edge-strong',
            },
          ]}
          isStacked
        />
      ) : null}
      <Table
        // Nothing is said of rolls that have not come yet.
        locale={{ emptyText: data ? wording.noLabelRolls : ' ' }}
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={[...rolls]}
        pagination={false}
        scroll={{ x: 'max-content' }}
      />
      {editing !== null ? (
        <RollForm
          key={editing}
          row={rolls.find((r) => r.id === editing) ?? null}
          onDone={() => setEditing(null)}
        />
      ) : null}
    </section>
  );
}

function RollForm({ row, onDone }: { row: RollRow | null; onDone: () => void }) {
  const { say, complain } = useShell();
  const setUp = useSetUp();
  const lists = setUp?.lists.value ?? NO_LISTS;
  const done = async ({ sentence, entry }: Done) => {
    say(sentence, entry);
    onDone();
    await refresh();
  };
  const remove = async () => {
    if (!row) return;
    try {
      await done(
        await call(api.suppliers.removeRoll, { params: { id: row.id }, body: { version: row.version } }),
      );
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="shelf-form">
      <SchemaForm
        takesFocus
        title={row ? row.roll.name : wording.newLabelRoll}
        schema={rollSchema}
        initial={{ ...(row?.roll ?? emptyRoll(setUp?.house.value.barcodes ?? [])) }}
        follow={({ supplier }) => (supplier ? { branches: [], types: [] } : {})}
        fields={(typed) => [
          { name: 'name', label: wording.name },
          { name: 'prefix', label: wording.prefix, isMono: true, help: wording.digitsThatEveryNumberBegins },
          { name: 'from', label: wording.firstNumber, kind: 'number' },
          { name: 'to', label: wording.lastNumber, kind: 'number' },
          { name: 'length', label: wording.digitsInAll, kind: 'number', min: 3, max: 20 },
          { name: 'supplier', label: wording.reservedFor, help: wording.aSuppliersNameEmptyFor },
          ...(typed.supplier
            ? []
            : [
                {
                  name: 'branches',
                  label: wording.meantForBranches,
                  kind: 'codes' as const,
                  list: lists.branches,
                  placeholder: wording.any,
                },
                {
                  name: 'types',
                  label: wording.meantForTypes,
                  kind: 'codes' as const,
                  list: lists.types,
                  placeholder: wording.any,
                },
              ]),
          { name: 'check', label: wording.checkCharacter, kind: 'choice', options: CHECKS },
          { name: 'note', label: wording.rollNote, help: wording.whereItLies, width: 'wide' },
          {
            name: 'spoiled',
            label: wording.spoiledLabels,
            kind: 'tags',
            help: wording.numbersOrRuns,
            width: 'wide',
          },
          {
            name: 'warnBelow',
            label: wording.warnBelow,
            kind: 'number',
            min: 0,
            help: wording.noughtForNever,
          },
          { name: 'isClosed', label: wording.closedRoll, kind: 'flag' },
        ]}
        verb={row ? wording.saveTheRoll(row.roll.name) : wording.addLabelRoll}
        onCancel={onDone}
        onSend={async (roll) =>
          done(
            row
              ? await call(api.suppliers.changeRoll, {
                  params: { id: row.id },
                  body: { version: row.version, roll },
                })
              : await call(api.suppliers.keepRoll, { body: { roll } }),
          )
        }
        more={row ? <Button onClick={() => void remove()}>{wording.deleteLabelRoll}</Button> : null}
      />
    </div>
  );
}
