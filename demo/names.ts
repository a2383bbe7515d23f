/** Given names, by who commonly bore them, so that two together read like one person. */
export const FORENAMES: readonly (readonly string[])[] = [
  ['Ada', 'Agnes', 'Alice', 'Annie', 'Barbara', 'Beatrice', 'Cecily', 'Charlotte', 'Dorothy', 'Edith', 'Eleanor', 'Eliza', 'Esther', 'Eunice', 'Evelyn', 'Florence', 'Frances', 'Grace', 'Gwen', 'Hannah', 'Harriet', 'Helen', 'Hilda', 'Ida', 'Ivy', 'Jane', 'Joan', 'Judith', 'Kathleen', 'Laura', 'Lydia', 'Mabel', 'Margaret', 'Martha', 'Matilda', 'Nora', 'Olive', 'Phoebe', 'Rachel', 'Rose', 'Ruth', 'Sarah', 'Stella', 'Susan', 'Ursula', 'Winifred'],
  ['Albert', 'Amos', 'Arthur', 'Bernard', 'Caleb', 'Clement', 'Cyril', 'Daniel', 'Edmund', 'Edward', 'Ernest', 'Fergus', 'Frederick', 'George', 'Gilbert', 'Harold', 'Henry', 'Hugh', 'Isaac', 'Jacob', 'James', 'Josiah', 'Leonard', 'Nathan', 'Oswald', 'Percy', 'Philip', 'Ralph', 'Reuben', 'Samuel', 'Silas', 'Thomas', 'Victor', 'Walter', 'Wilfred'],
];

export const SURNAMES = ['Abberley', 'Ackland-Frew', 'Ashplant', 'Bagshawe', 'Barleycote', 'Birtwhistle', 'Bracegirdle', 'Brackenbury', 'Breck', 'Brightmore', 'Bullace', 'Burdock', 'Chaffey', 'Clewlow', 'Clutterbuck', 'Coldwater', 'Copplestone', 'Cordwell', 'Crake', 'Dallimore', 'Danby-Holt', 'Dunnock', 'Eddershaw', 'Elmhirst', 'Fairbrass', 'Fallowfield', 'Fenwick-Lyle', 'Flaxman', 'Frith', 'Furzedown', 'Garlick', 'Gathercole', 'Godbehere', 'Greenhalgh', 'Hackett', 'Hainsworth', 'Harbottle', 'Hayward-Marsh', 'Hazelrigg', 'Heathcote', 'Hepplewhite', 'Hollowbread', 'Hurdlestone', 'Inchbald', 'Jessop', 'Kellaway', 'Kettlewell', 'Lamplugh', 'Larkspur', 'Leatherbarrow', 'Lillywhite', 'Longstaff', 'Lovibond', 'Mallender', 'Marlpit', 'Meadowcroft', 'Merriweather', 'Nettleship', 'Oakshott', 'Onions', 'Orchard', 'Osgerby', 'Paddock', 'Partridge', 'Pargeter', 'Peascod', 'Penhaligon', 'Pollard', 'Quarmby', 'Quickfall', 'Ravenscroft', 'Reedman', 'Ridgway', 'Rushbrooke', 'Saltmarsh', 'Sandiford', 'Shackleton-Bye', 'Shearer', 'Skelhorn', 'Sparshott', 'Spinner', 'Starling', 'Stonehouse', 'Strawbridge', 'Swallowcliffe', 'Tanner', 'Thackeray-Moss', 'Thistlewood', 'Threlkeld', 'Tidmarsh', 'Tranter', 'Turnpenny', 'Underwood', 'Vellacott', 'Wagstaffe', 'Walklate', 'Wattleworth', 'Weatherhogg', 'Whitethorn', 'Wilberfoss', 'Winterbourne', 'Withycombe', 'Woodforde', 'Yarborough', 'Yeoman'];

/** Authors of the books in other languages and scripts. */
export const FOREIGN_NAMES = {
  fre: ['Delorme-Vasseur, Amélie', 'Rouvière, Étienne', 'Hébrard, Solène'],
  ger: ['Weidenhöfer, Käthe', 'Strohmeyer, Jürgen', 'Flechtner, Anneliese'],
  wel: ['Gwynfryn, Eluned', 'ap Rhydderch, Ifor'],
  dan: ['Pilegård, Bodil', 'Rørdam-Høj, Søren'],
  dut: ['Tenenhout, Griet van', 'Rietveen, Joost'],
  spa: ['Mimbrera Núñez, Begoña', 'Cañizares, Íñigo'],
  pol: ['Wiklińska, Żaneta', 'Łozowski, Błażej'],
  rus: ['Лозинский, Прохор', 'Корзинкина, Аграфена'],
  gre: ['Καλαθάς, Στέφανος'],
  heb: ['קלעי, מרים'],
} as const;
