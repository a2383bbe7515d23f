import { api, houseSchema, type HouseBody, type SetUp } from '@osier/contract';
import { MAY_STAND } from '@osier/core/stocktake';
import { Checkbox, Input, InputNumber, Select } from 'antd';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { KitBar } from '../../parts/form/KitBar';
import { KitField, KitGrid, KitSection } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { useTyped } from '../../parts/form/use-typed';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { BarcodeRules } from './BarcodeRules';
import { CallNumberRules } from './CallNumberRules';
import { CheckPicker } from './CheckPicker';
import { draftOf } from './draft-of';
import { RegistryRules } from './RegistryRules';
import { WithdrawalRules } from './WithdrawalRules';
import { setUpWords as wording } from './words';

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
  const number = (
    key: 'classDecimals' | 'cutterLetters' | 'jumpLength' | 'briefDays',
    min: number,
    max: number,
  ) => (
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
  const choice = <K extends 'punctuation' | 'wordAfterArticle' | 'askNeighbours'>(
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
  const list = (
    key: 'droppedSubdivisions' | 'protectedFields' | 'thesauri' | 'prefixOrder',
    placeholder: string,
  ) => (
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
  return (
    <div className="kit-page">
      <div className="kit-scroll stack" role="group" aria-label={wording.houseRules} tabIndex={0}>
        <KitSection title={wording.callNumbers}>
          <KitGrid>
            <KitField
              label={wording.decimalsOfAClassNumber}
              help={wording.digitsKeptAfterThePoint}
              problem={problem('classDecimals')}
              width="short"
            >
              {number('classDecimals', 0, 12)}
            </KitField>
            <KitField
              label={wording.lettersOfTheAuthorMark}
              help={wording.n0ForNone}
              problem={problem('cutterLetters')}
              width="short"
            >
              {number('cutterLetters', 0, 6)}
            </KitField>
            <KitField
              label={wording.prefixOrder}
              help={wording.prefixesInTheirOrder}
              width="wide"
              problem={worst('prefixOrder')}
            >
              {list('prefixOrder', 'J; R; F')}
            </KitField>
          </KitGrid>
          <CallNumberRules
            rules={house.callNumbers}
            house={house}
            disabled={disabled}
            problem={(name) => problem(`callNumbers.${name}`)}
            onChange={(callNumbers) => set({ callNumbers })}
          />
        </KitSection>
        <KitSection title={wording.records}>
          <KitGrid>
            <KitField label={wording.isbdPunctuationBetweenAreas} problem={problem('punctuation')}>
              {choice('punctuation', [
                ['kept', 'kept'],
                ['left out', 'left out'],
              ])}
            </KitField>
            <KitField label={wording.firstWordAfterAnInitial} problem={problem('wordAfterArticle')}>
              {choice('wordAfterArticle', [
                ['small', wording.smallLetter],
                ['capital', wording.capitalLetter],
                ['as it comes', 'as it comes'],
              ])}
            </KitField>
            <KitField
              label={wording.subdivisionsDeletedHere}
              width="wide"
              help={wording.textOfXOrV}
              problem={worst('droppedSubdivisions')}
            >
              {list('droppedSubdivisions', 'Juvenile literature')}
            </KitField>
            <KitField
              label={wording.subjectVocabulariesUsedHere}
              width="wide"
              help={wording.codesOf6xx2None}
              problem={worst('thesauri')}
            >
              {list('thesauri', 'lcsh')}
            </KitField>
            <KitField
              label={wording.protectedLocalFields}
              width="wide"
              help={wording.threeDigitsEachAPoint}
              problem={worst('protectedFields')}
            >
              {list('protectedFields', '59.')}
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title={wording.copies}>
          <KitGrid>
            <KitField
              label={wording.currencyOfPrices}
              help={wording.currencyHelp(data.house.value.currency, house.currency)}
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
          </KitGrid>
        </KitSection>
        <KitSection title={wording.barcodeRules}>
          <BarcodeRules
            rules={house.barcodes}
            disabled={disabled}
            problem={(name) => problem(`barcodes.${name}`)}
            onChange={(barcodes) => set({ barcodes })}
          />
        </KitSection>
        <KitSection title={wording.neighbours}>
          <KitGrid>
            <KitField label={wording.howNeighboursAreAsked} problem={problem('askNeighbours')}>
              {choice('askNeighbours', [
                ['in turn', wording.inTurn],
                ['at once', wording.allAtOnce],
              ])}
            </KitField>
            <KitField
              label={wording.daysUntilLong}
              help={wording.thenToldInToday}
              width="short"
              problem={problem('briefDays')}
            >
              {number('briefDays', 1, 999)}
            </KitField>
            <KitField
              label={wording.languageOfCataloguing}
              help={wording.codeOf040b}
              width="short"
              problem={problem('cataloguingLanguage')}
            >
              <Input
                className="mono"
                value={house.cataloguingLanguage}
                maxLength={3}
                disabled={disabled}
                onChange={(e) => set({ cataloguingLanguage: e.target.value.toLowerCase() })}
              />
            </KitField>
            <KitField label={wording.briefRecords}>
              <Checkbox
                checked={house.askAtNight}
                disabled={disabled}
                onChange={(e) => set({ askAtNight: e.target.checked })}
              >
                {wording.askEveryNight}
              </Checkbox>
            </KitField>
            <KitField
              label={wording.otherCatalogues}
              width="wide"
              help={wording.whatTheyAreAnswered(location.origin)}
            >
              <Checkbox
                checked={house.answersOthers}
                disabled={disabled}
                onChange={(e) => set({ answersOthers: e.target.checked })}
              >
                {wording.answerOthers}
              </Checkbox>
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title={wording.registryOfNames}>
          <RegistryRules
            registry={house.registry}
            writesNumbers={house.writesNumbers}
            disabled={disabled}
            problem={(name) => problem(`registry.${name}`)}
            onChange={set}
          />
        </KitSection>
        <KitSection title={wording.stocktake}>
          <KitGrid>
            <KitField
              label={wording.lengthOfAJump}
              help={wording.soManyExpectedCopiesIn}
              width="short"
              problem={problem('jumpLength')}
            >
              {number('jumpLength', 2, 200)}
            </KitField>
            <KitField label={wording.alsoOnTheShelf} help={wording.copiesOfTheseStatuses}>
              <Checkbox.Group
                options={[...MAY_STAND]}
                value={[...(house.standing ?? MAY_STAND)]}
                disabled={disabled}
                onChange={(standing) => set({ standing })}
              />
            </KitField>
          </KitGrid>
        </KitSection>
        <KitSection title={wording.withdrawals}>
          <WithdrawalRules
            limits={house.withdrawals}
            disabled={disabled}
            problem={(name) => problem(`withdrawals.${name}`)}
            onChange={(withdrawals) => set({ withdrawals })}
          />
        </KitSection>
        <CheckPicker
          checks={data.checks}
          off={house.checksOff}
          disabled={disabled}
          onChange={(checksOff) => set({ checksOff })}
        />
      </div>
      {mayChange ? (
        <KitBar typed={typed} verb={wording.saveHouseRules} onSend={() => void save()} />
      ) : (
        <p className="faded">{wording.onlyTheHeadChangesThese}</p>
      )}
    </div>
  );
}
