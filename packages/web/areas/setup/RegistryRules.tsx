import type { HouseBody } from '@osier/contract';
import { Checkbox, Input } from 'antd';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { neighbourWords as wording } from './neighbour-words';

type Registry = NonNullable<HouseBody['registry']>;
const NONE: Registry = { name: '', address: '', agency: '' };

/** The shared file of names that headings are held against. */
export function RegistryRules({
  registry = NONE,
  writesNumbers,
  disabled,
  problem,
  onChange,
}: {
  registry: HouseBody['registry'];
  /** Exported records have the numbers of their headings. */
  writesNumbers: boolean;
  disabled: boolean;
  problem: (name: keyof Registry) => string | undefined;
  onChange: (next: Pick<Partial<HouseBody>, 'registry' | 'writesNumbers'>) => void;
}) {
  const set = (part: Partial<Registry>) => onChange({ registry: { ...registry, ...part } });
  return (
    <KitGrid>
      <KitField label={wording.registryName} problem={problem('name')}>
        <Input value={registry.name} disabled={disabled} onChange={(e) => set({ name: e.target.value })} />
      </KitField>
      <KitField
        label={wording.registryAddress}
        help={wording.registryAddressHelp}
        width="wide"
        problem={problem('address')}
      >
        <Input
          className="mono"
          value={registry.address}
          disabled={disabled}
          onChange={(e) => set({ address: e.target.value })}
        />
      </KitField>
      <KitField
        label={wording.registryAgency}
        help={wording.registryAgencyHelp}
        width="short"
        problem={problem('agency')}
      >
        <Input
          className="mono"
          value={registry.agency}
          disabled={disabled}
          onChange={(e) => set({ agency: e.target.value })}
        />
      </KitField>
      <KitField label={wording.numbersOfHeadings} width="wide" help={wording.numbersOfHeadingsHelp}>
        <Checkbox
          checked={writesNumbers}
          disabled={disabled}
          onChange={(e) => onChange({ writesNumbers: e.target.checked })}
        >
          {wording.writeNumbers}
        </Checkbox>
      </KitField>
    </KitGrid>
  );
}
