import { registryNames } from './registry';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  brokenDelivery,
  cleanDelivery,
  exchangeDelivery,
  loanFiguresFile,
  shelfReadyDelivery,
  stocktakeFile,
  trolleyFile,
} from './files';
import { authorityFile } from './authorities';
import { makeLibrary, shelf } from './library';
import { booksToCatalogue, neighbourShelves } from './neighbours';
import { briefOf } from '@osier/core/access';

/** Writes demo/files, and into the data folder what the stand-ins need of the demo library. */
export function writeFiles(folder: string): void {
  const library = makeLibrary();
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'tallow-and-pike.mrc'), cleanDelivery(library));
  writeFileSync(join(folder, 'reedling-shelf-ready.mrc'), shelfReadyDelivery(library));
  writeFileSync(join(folder, 'reedling-broken.mrc'), brokenDelivery(library));
  writeFileSync(join(folder, 'lyngby-exchange.xml'), exchangeDelivery());
  writeFileSync(join(folder, 'wickmere-names.mrc'), authorityFile());
  writeFileSync(join(folder, 'stocktake-millrace-746.txt'), stocktakeFile(library));
  writeFileSync(join(folder, 'trolley-of-discards.txt'), trolleyFile(library));
  writeFileSync(join(folder, 'loan-figures-millrace.csv'), loanFiguresFile(library));
  writeFileSync(join(folder, 'books-to-catalogue.txt'), booksToCatalogue(library));
}

export function writeForStandIns(folder: string): void {
  const library = makeLibrary();
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'loans.json'), JSON.stringify(library.loans));
  const shelves = [
    ['SH', 'READ', 'Sedge House, reading room'],
    ['MR', 'OPEN', 'Millrace, open shelves'],
    ['HB', 'STORE', 'Hallow Barn, closed store'],
  ].map(([branch, location, name]) => ({
    name,
    copies: shelf(library, branch!, location!).map((c) => ({
      barcode: c.copy.barcode,
      callNumber: c.callNumber,
      title: briefOf(c.marc).title,
    })),
  }));
  writeFileSync(join(folder, 'shelves.json'), JSON.stringify(shelves));
  writeFileSync(join(folder, 'registry.json'), JSON.stringify(registryNames()));
  writeFileSync(join(folder, 'neighbours.json'), JSON.stringify(neighbourShelves(library)));
}
