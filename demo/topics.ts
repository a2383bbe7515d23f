/** A craft of the Wickmere Institute: its class, its subject words and what its books are about. */
export interface Topic {
  readonly dewey: string;
  readonly subject: string;
  readonly also: readonly string[];
  readonly craft: string;
  readonly worker: string;
  readonly things: readonly string[];
}

export const TOPICS: readonly Topic[] = [
  { dewey: '746.412', subject: 'Basket making', also: ['Willows', 'Weaving, Coil'], craft: 'basketry', worker: 'basket maker', things: ['round log baskets', 'frame baskets', 'the oval shopper', 'eel traps and hives', 'coiled straw work', 'the Fen quarter cran', 'borders and foot-borders', 'cradles and cots', 'rush log cases', 'split-ash swills'] },
  { dewey: '695', subject: 'Thatched roofs', also: ['Roofing', 'Straw'], craft: 'thatching', worker: 'thatcher', things: ['long straw ridges', 'water-reed eaves', 'the block-cut ridge', 'spars and sways', 'ricks and staddles', 'reed beds under management', 'dormers in combed wheat'] },
  { dewey: '631.27', subject: 'Hedges', also: ['Hedgelaying', 'Fences'], craft: 'hedge-laying', worker: 'hedger', things: ['the single brush', 'Midland bullock fence', 'pleachers and stakes', 'gap-mending', 'coppiced boundaries', 'heathering and binders', 'hedges on banks'] },
  { dewey: '634.928', subject: 'Wattle and daub', also: ['Hurdles', 'Coppicing'], craft: 'hurdle making', worker: 'hurdle maker', things: ['hazel wattle hurdles', 'gate hurdles in ash', 'sheepfold hurdles', 'twilly holes', 'the hurdle mould', 'seven-year coppice'] },
  { dewey: '667.26', subject: 'Dyes and dyeing', also: ['Dye plants', 'Mordants'], craft: 'dyeing', worker: 'dyer', things: ['madder reds', 'weld and woad', 'walnut and oak gall', 'lichen purples', 'iron mordants', 'the vat in winter', 'over-dyed greens'] },
  { dewey: '746.14', subject: 'Hand weaving', also: ['Looms', 'Textile fabrics'], craft: 'weaving', worker: 'weaver', things: ['rag rugs on a floor loom', 'four-shaft drafts', 'blanket twills', 'tablet-woven bands', 'linen towels', 'double cloth', 'inkle braids'] },
  { dewey: '746.12', subject: 'Hand spinning', also: ['Wool', 'Flax'], craft: 'spinning', worker: 'spinner', things: ['long-draw woollen', 'the great wheel', 'flax from strick to line', 'drop spindles', 'marled yarns', 'carders and combs'] },
  { dewey: '623.829', subject: 'Coracles', also: ['Boatbuilding', 'Boats and boating'], craft: 'boat building', worker: 'boat builder', things: ['ash-lath coracles', 'clinker punts', 'the fen lighter', 'paddles and thwarts', 'caulking and pitch', 'duck punts', 'calico and tar'] },
  { dewey: '638.14', subject: 'Beehives', also: ['Bee culture', 'Skeps'], craft: 'bee-keeping', worker: 'bee-keeper', things: ['straw skeps', 'bee boles in walls', 'heather honey', 'cloom and hackle', 'swarms and caps', 'wax and wicks'] },
  { dewey: '693.1', subject: 'Dry stone walls', also: ['Stonemasonry', 'Walls'], craft: 'dry stone walling', worker: 'waller', things: ['throughs and hearting', 'smoots and stiles', 'sheepfolds of the fells', 'retaining walls', 'cope stones', 'field clearance walls'] },
  { dewey: '684.13', subject: 'Chair caning', also: ['Chairs', 'Rushes'], craft: 'chair seating', worker: 'chair seater', things: ['seven-step cane', 'rush seats', 'seagrass and cord', 'ladderbacks', 'blind-cane patterns'] },
  { dewey: '684.08', subject: 'Green woodwork', also: ['Turning (Lathe work)', 'Woodwork'], craft: 'green woodwork', worker: 'bodger', things: ['the pole lathe', 'shave horses', 'cleft ash tool handles', 'spoons and ladles', 'gate-leg stools', 'besoms and brooms'] },
  { dewey: '677.71', subject: 'Rope', also: ['Cordage', 'Knots and splices'], craft: 'rope making', worker: 'rope maker', things: ['the village rope walk', 'hemp and bast', 'halters and plough lines', 'net making', 'straw rope'] },
  { dewey: '746.22', subject: 'Lace and lace making', also: ['Bobbins', 'Needlework'], craft: 'lace making', worker: 'lace maker', things: ['point ground edgings', 'bone bobbins', 'prickings', 'the lace schools', 'torchon borders'] },
  { dewey: '674.82', subject: 'Coopers and cooperage', also: ['Barrels'], craft: 'coopering', worker: 'cooper', things: ['white coopering', 'dry casks', 'butter churns', 'hoops and chimes', 'the cider barrel'] },
  { dewey: '682', subject: 'Blacksmithing', also: ['Ironwork', 'Forging'], craft: 'smithing', worker: 'blacksmith', things: ['bill-hooks by region', 'gate furniture', 'the charcoal hearth', 'chain and hook', 'edge tools'] },
  { dewey: '676.22', subject: 'Paper, Handmade', also: ['Papermaking'], craft: 'paper making', worker: 'paper maker', things: ['nettle and reed papers', 'moulds and deckles', 'watermarks', 'rag papers', 'pulp from willow bark'] },
  { dewey: '662.74', subject: 'Charcoal', also: ['Charcoal burners'], craft: 'charcoal burning', worker: 'charcoal burner', things: ['earth clamps', 'artists’ charcoal in willow', 'ring kilns', 'colliers’ huts'] },
  { dewey: '745.531', subject: 'Leatherwork', also: ['Saddlery', 'Tanning'], craft: 'leather work', worker: 'saddler', things: ['oak-bark tanning', 'saddle stitch', 'bellows and buckets', 'harness for one horse'] },
  { dewey: '635.977', subject: 'Willows', also: ['Osiers', 'Plants, Cultivated'], craft: 'willow growing', worker: 'willow grower', things: ['beds on heavy land', 'named varieties', 'stripping and boiling', 'pollards by the brook', 'living fences', 'pests of the willow bed'] },
];

export const PLACES = ['Wickmere', 'Sedgeholme', 'Marl Fen', 'Thornbeck', 'Ashlode', 'Hallowdale', 'Upper Withey', 'Pottlesham', 'Eelmarsh', 'Combe Rushton', 'Stannow', 'Lower Plash', 'Brindle Moor', 'Ketterby', 'Osmere', 'Tolland Heath', 'Garrowby Sands', 'Netherlode', 'Skell Water', 'Hazelbury'];

export const REGIONS = ['the eastern fens', 'the western levels', 'the marches', 'the chalk downs', 'the northern dales', 'the river villages', 'the heath parishes', 'the coast'];

export const PUBLISHERS: readonly (readonly [string, string])[] = [
  ['Wickmere', 'Wickmere Institute of Rural Crafts'], ['Thornbeck', 'Long Furrow Press'], ['Ashlode', 'Withy & Bale'],
  ['Ketterby', 'Harrowgate House'], ['Osmere', 'The Heron Press'], ['Sedgeholme', 'Fenland Record Society'],
  ['Stannow', 'Plain Crafts'], ['Hazelbury', 'Coppice Books'], ['Marl Fen', 'Eel & Osprey'], ['London', 'Garland & Tew'],
  ['Bristol', 'Quayside Editions'], ['Leeds', 'Spindle Books'], ['Cardiff', 'Gwasg yr Helyg'], ['Dublin', 'Sally Rod Press'],
];

export const BODIES = ['Wickmere Institute of Rural Crafts', 'Fenland Guild of Basket Makers', 'Eelmarsh Drainage Board', 'Hallowdale Women’s Institute', 'Society of Hedgers and Ditchers', 'Thornbeck Mechanics’ Institute', 'Marches Thatching Council', 'Ketterby Agricultural Society', 'Rural Industries Survey', 'Osmere Museum of the Working Water'];
