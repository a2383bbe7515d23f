import { api, houseSchema, type HouseBody, type SetUp } from '@osier/contract';
import { Input, InputNumber, Select } from 'antd';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { KitBar } from '../../parts/form/KitBar';
import { KitField, KitGrid, KitSection } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { useTyped } from '../../parts/form/use-typed';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { CheckPicker } from './CheckPicker';
import { draftOf } from './draft-of';

type House = Omit<HouseBody, 'version'>;
type Key = keyof House;

/** The house rules, and which checks are on. */
export function HouseForm({ data }: { data: SetUp }) {
  const mayChange = useMay('set up');
  const say = useShell((s) => s.say);
  const typed = useTyped<House>({
    initial: houseSchema.cast(data.house.value),
    schema: houseSchema,
    draft: draftOf('house', 'House rules'),
  });
  const { value: house, set, problem } = typed;
  const disabled = !mayChange;
  const save = () =>
    typed.send(async (value) => {
      const done = await call(api.setup.saveHouse, { body: { version: data.house.version, ...value } });
      say(done.sentence, done.entry);
      await refresh();
    });
  const number = (key: 'classDecimals' | 'cutterLetters' | 'jumpLength', min: number, max: number) => (
    <InputNumber
      min={min}
      max={max}
      controls={false}
      style={{ width: '100%' }}
      value={house[key]}
      disabled={disabled}
      onChange={(v) => set({ [key]: v ?? min })}
    />
  );
  const choice = <K extends 'punctuation' | 'wordAfterArticle'>(
    key: K,
    options: readonly (readonly [House[K], string])[],
  ) => (
    <Select
      value={house[key]}
      disabled={disabled}
      onChange={(v: House[K]) => set({ [key]: v })}
      options={options.map(([value, label]) => ({ value, label }))}
    />
  );
  const list = (key: 'droppedSubdivisions' | 'protectedFields' | 'thesauri', placeholder: string) => (
    <PickMany
      list={null}
      placeholder={placeholder}
      value={house[key]}
      disabled={disabled}
      status={worst(key) ? 'error' : ''}
      onChange={(value) => set({ [key]: value })}
    />
  );
  /** What is wrong with a list or with one of its entries. */
  const worst = (key: Key) =>
    problem(key) ??
    (Array.isArray(house[key])
      ? house[key].map((_, i) => problem(`${key}.${i}`)).find((p) => p !== undefined)
      : undefined);
  const barcode = (part: Partial<House['barcode']>) => set({ barcode: { ...house.barcode, ...part } });
  return (
    <div className="kit-page">
      <div className="kit-scroll stack" role="group" aria-label="House rules" tabIndex={0}>
        <KitSection title="Call numbers">
          <KitGrid>
            <KitField
              label="Decimals of a class number"
              help="digits kept after the point"
              problem={problem('classDecimals')}
              width="short"
            >
              {number('classDecimals', 0, 12)}
            </KitField>
            <KitField
              label="Letters of the author mark"
              help="0 for none"
              problem={problem('cutterLetters')}
              width="short"
            >
              {number('cutterLetters', 0, 6)}
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title="Records">
          <KitGrid>
            <KitField label="ISBD punctuation between areas" problem={problem('punctuation')}>
              {choice('punctuation', [
                ['kept', 'kept'],
                ['left out', 'left out'],
              ])}
            </KitField>
            <KitField label="First word after an initial article" problem={problem('wordAfterArticle')}>
              {choice('wordAfterArticle', [
                ['small', 'small letter'],
                ['capital', 'capital letter'],
                ['as it comes', 'as it comes'],
              ])}
            </KitField>
            <KitField
              label="Subdivisions deleted here"
              width="wide"
              help="Text of $x or $v. Type one, then Enter."
              problem={worst('droppedSubdivisions')}
            >
              {list('droppedSubdivisions', 'Juvenile literature')}
            </KitField>
            <KitField
              label="Subject vocabularies used here"
              width="wide"
              help="Codes of 6XX $2. None means that all are used."
              problem={worst('thesauri')}
            >
              {list('thesauri', 'lcsh')}
            </KitField>
            <KitField
              label="Protected local fields"
              width="wide"
              help="Three digits each; a point stands for any digit. They stay when a record is replaced."
              problem={worst('protectedFields')}
            >
              {list('protectedFields', '59.')}
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title="Copies">
          <KitGrid>
            <KitField
              label="Currency of prices"
              help="three letters of ISO 4217"
              width="short"
              problem={problem('currency')}
            >
              <Input
                className="mono"
                value={house.currency}
                maxLength={3}
                disabled={disabled}
                onChange={(e) => set({ currency: e.target.value.toUpperCase() })}
              />
            </KitField>
            <KitField label="Digits of a barcode" width="short" problem={problem('barcode.length')}>
              <InputNumber
                min={4}
                max={20}
                controls={false}
                style={{ width: '100%' }}
                value={house.barcode.length}
                disabled={disabled}
                onChange={(length) => barcode({ length: length ?? house.barcode.length })}
              />
            </KitField>
            <KitField
              label="First digit of a copy’s barcode"
              help="empty for any"
              width="short"
              problem={problem('barcode.kind')}
            >
              <Input
                className="mono"
                maxLength={1}
                value={house.barcode.kind}
                disabled={disabled}
                onChange={(e) => barcode({ kind: e.target.value })}
              />
            </KitField>
            <KitField
              label="Digits of this library"
              help="they follow the first digit; empty for any"
              width="short"
              problem={problem('barcode.library')}
            >
              <Input
                className="mono"
                value={house.barcode.library}
                disabled={disabled}
                onChange={(e) => barcode({ library: e.target.value })}
              />
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title="Stocktake">
          <KitGrid>
            <KitField
              label="Length of a jump"
              help="so many expected copies in a row not scanned"
              width="short"
              problem={problem('jumpLength')}
            >
              {number('jumpLength', 2, 200)}
            </KitField>
          </KitGrid>
        </KitSection>
        <CheckPicker
          checks={data.checks}
          off={house.checksOff}
          disabled={disabled}
          onChange={(checksOff) => set({ checksOff })}
        />
      </div>
      {mayChange ? (
        <KitBar typed={typed} verb="Save house rules" onSend={() => void save()} />
      ) : (
        <p className="faded">Only the head changes these.</p>
      )}
    </div>
  );
}
