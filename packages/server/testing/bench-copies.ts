import { creation } from '@osier/core/changes';
import { field } from '@osier/core/marc';
import { commit } from '../store/commit';
import { openStore } from '../store/open-store';
import { TESTED } from './tested';

/** Adds copies at the Millrace benches to the demo library in a folder, a record each, a multiple of 500 of them; gives their barcodes. */
export async function benchCopies(folder: string, count: number): Promise<string[]> {
  const store = await openStore(folder);
  const [record, holding, copy] = [
    await store.nextIds('record', count),
    await store.nextIds('holding', count),
    await store.nextIds('copy', count),
  ];
  const barcodes: string[] = [];
  for (let at = 0; at < count; at += 500)
    await commit(store, {
      ...{ did: TESTED, person: 1 },
      changes: Array.from({ length: 500 }, (_, k) => {
        const i = at + k;
        const barcode = `3120499${String(i).padStart(7, '0')}`;
        barcodes.push(barcode);
        const plain = { fund: '', supplier: '', acquired: '', condition: '', note: '', price: null };
        return [
          creation('record', record + i, {
            leader: '00000nam a2200000 i 4500',
            fields: [field('245', '00', 'a', `Bench ${i}`)],
          }),
          creation('holding', holding + i, {
            ...{ record: record + i, branch: 'MR', location: 'BENCH', scheme: 'dewey' as const, prefix: '' },
            ...{ class: `${680 + (i % 9)}.${i}`, item: 'BEN', suffix: '', note: '' },
          }),
          creation('copy', copy + i, {
            ...{
              ...plain,
              holding: holding + i,
              barcode,
              number: 1,
              type: 'BK',
              status: 'available' as const,
              lastSeen: '',
            },
          }),
        ];
      }).flat(),
    });
  await store.close();
  return barcodes;
}
