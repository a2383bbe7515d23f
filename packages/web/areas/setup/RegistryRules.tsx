import type { HouseBody } from '@osier/contract';
import { Input } from 'antd';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { neighbourWords as wording } from './neighbour-words';

type Registry = NonNullable<HouseBody['registry']>;
const NONE: Registry = { name: '', address: '', agency: '' };

/** The shared file of names that headings are held against. */
export function RegistryRules({
  registry = NONE,
  disabled,
  problem,
  onChange,
}: {
  registry: HouseBody['registry'];
  disabled: boolean;
  problem: (name: keyof Registry) => string | undefined;
  onChange: (next: Registry) => void;
}) {
  const set = (part: Partial<Registry>) => onChange({ ...registry, ...part });
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
    </KitGrid>
  );
}
