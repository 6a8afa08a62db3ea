/** A finding that blocks must be mended before the job is sent. */
export type FindingLevel = 'blocks' | 'warns' | 'notes';

/** What is always the same of a finding, whatever it is found in. */
interface FindingKind {
  /** What it is called on screens. */
  readonly title: string;
  /** How grave it is, the graver first where that depends on more. */
  readonly levels: readonly FindingLevel[];
  /** Why it matters, in one plain sentence. */
  readonly why: string;
  /** What the buttons that put it right say, in words without their numbers. */
  readonly mends: readonly string[];
}

const blocks = ['blocks'] as const;
const warns = ['warns'] as const;
const notes = ['notes'] as const;

/** Everything that the checks may find. A check is a file that makes findings of these, and a line in `check.ts`. */
export const catalogue = {
  'nothing-to-burn': {
    title: 'Nothing burns yet',
    levels: blocks,
    why: 'The machine would be sent a program that does nothing.',
    mends: [],
  },
  'off-bed': {
    title: 'Off the bed',
    levels: blocks,
    why: 'The machine stops with an alarm where it is to leave its bed, in the middle of the job.',
    mends: ['Move onto the bed', 'Park beside the bed'],
  },
  'beam-off-bed': {
    title: 'The beam would leave the bed',
    levels: blocks,
    why: 'Half a kerf, or the run-up of a scan line, reaches further than the drawing: the machine stops with an alarm.',
    mends: ['Move in by'],
  },
  'sheet-off-bed': {
    title: 'A sheet over the edge',
    levels: warns,
    why: 'What of the sheet lies beside the bed cannot be reached.',
    mends: ['Move the sheet onto the bed'],
  },
  'off-sheet': {
    title: 'Off the sheet',
    levels: warns,
    why: 'The beam would burn the bed below.',
    mends: ['Move onto the sheet'],
  },
  'into-margin': {
    title: 'Into the margin',
    levels: warns,
    why: 'At the edge the head may hit its stops, and stock is often bent or short.',
    mends: ['Move out of the margin', 'Move away from the edge'],
  },
  'built-other-stock': {
    title: 'Parts for other stock',
    levels: warns,
    why: 'Joints are as wide as the stock is thick: parts that could not follow their sheet do not go together.',
    mends: [],
  },
  parked: {
    title: 'Parked beside the bed',
    levels: notes,
    why: 'It is kept with the job, and left out of every run.',
    mends: ['Move onto the bed'],
  },
  'colour-without-meaning': {
    title: 'A colour without meaning',
    levels: blocks,
    why: 'Nothing says whether it is cut, engraved or left alone.',
    mends: ['Treat as', 'Note, not burnt'],
  },
  'near-miss': {
    title: 'Colours hardly to be told apart',
    levels: warns,
    why: 'Two colours that look the same burn differently.',
    mends: ['Treat as'],
  },
  'open-cut': {
    title: 'Cut lines that do not close',
    levels: warns,
    why: 'A piece whose outline has a gap hangs on by it.',
    mends: ['Join ends within', 'Score'],
  },
  'cut-in-two': {
    title: 'A cut through a piece',
    levels: warns,
    why: 'Where a bend was meant, the piece falls in two.',
    mends: ['Score'],
  },
  'open-engrave': {
    title: 'Nothing to fill',
    levels: warns,
    why: 'An open line has no inside that could be engraved.',
    mends: ['Join ends within', 'Score'],
  },
  'line-drawn-twice': {
    title: 'A line drawn twice',
    levels: warns,
    why: 'It burns twice: deeper, wider and charred.',
    mends: ['Remove', 'Cut shared edges once'],
  },
  'tiny-gap': {
    title: 'Ends that nearly meet',
    levels: notes,
    why: 'A gap too small to be seen keeps an outline from closing, and the head stops and starts there.',
    mends: ['Join ends within'],
  },
  'left-over': {
    title: 'Stray points',
    levels: notes,
    why: 'They leave dots on the work, and make the drawing seem larger than it is.',
    mends: ['Remove'],
  },
  'cuts-cross': {
    title: 'Cut outlines that cross',
    levels: ['blocks', 'warns'],
    why: 'More pieces come loose than are drawn, and with a kerf not in the size that is stated.',
    mends: ['Take the smaller out of the larger', 'Unite', 'Trim the smaller'],
  },
  'no-sheet': {
    title: 'No sheet',
    levels: warns,
    why: 'Without a material there are no recipes, and nothing shows whether the work fits.',
    mends: [],
  },
  'no-recipe': {
    title: 'No recipe',
    levels: blocks,
    why: 'Nobody has said with which power and speed it burns.',
    mends: [],
  },
  'beyond-machine': {
    title: 'Beyond the machine',
    levels: blocks,
    why: 'The machine cannot do what its settings say.',
    mends: ['Set'],
  },
  'greys-too-faint': {
    title: 'Greys too faint to burn',
    levels: warns,
    why: 'Below its least power the beam does not light, and the lightest greys are missing.',
    mends: ['Set'],
  },
  'worked-out': {
    title: 'Worked out, never burnt',
    levels: warns,
    why: 'Power and speed were worked out from other recipes and may be off.',
    mends: [],
  },
  'forbidden-stock': {
    title: 'Never laser this',
    levels: blocks,
    why: 'It is dangerous to people or to the machine.',
    mends: [],
  },
  'outline-waits': {
    title: 'Still being worked out',
    levels: blocks,
    why: 'An outline that follows another is not known yet.',
    mends: [],
  },
  'missed-by-beam': {
    title: 'Too thin to burn',
    levels: warns,
    why: 'What lies between two scan lines, or is no wider than the kerf, leaves no trace.',
    mends: ['A line through each', 'Lines of', 'Score'],
  },
  'kerf-swallows': {
    title: 'Narrower than the kerf',
    levels: blocks,
    why: 'The beam would have to go beyond the middle of the hole.',
    mends: ['Score'],
  },
  'thin-wall': {
    title: 'Thinner than the kerf',
    levels: ['warns', 'notes'],
    why: 'Heat from both sides chars a wall that is so thin, and on its lines the beam takes it away.',
    mends: [],
  },
  'fine-detail': {
    title: 'Finer than the material holds',
    levels: warns,
    why: 'What is thinner than this burns away, breaks off, or cannot be told from its neighbours.',
    mends: ['Thicken by'],
  },
  'small-letters': {
    title: 'Letters too small to read',
    levels: warns,
    why: 'The burn is as wide as the strokes of the letters, and they run together.',
    mends: ['Enlarge to'],
  },
  'field-unfilled': {
    title: 'A field is not filled',
    levels: warns,
    why: 'A name in braces stands for words that are still to come, and burnt as it is it spoils the piece.',
    mends: [],
  },
  'text-over-frame': {
    title: 'A text too large for its place',
    levels: warns,
    why: 'It burns over what is beside it, or off the piece.',
    mends: [],
  },
  'code-too-fine': {
    title: 'A code too fine to be read',
    levels: blocks,
    why: 'The beam is wider than the parts of the code, which run together.',
    mends: [],
  },
  'code-quiet-zone': {
    title: 'No quiet zone around a code',
    levels: warns,
    why: 'A camera finds a code by what is free around it.',
    mends: [],
  },
  'narrow-gap': {
    title: 'No room for the beam',
    levels: warns,
    why: 'Cuts on both sides of a gap meet, and take from what is beside it.',
    mends: [],
  },
  'sharp-corner': {
    title: 'Corners that stay round',
    levels: notes,
    why: 'The beam is round: inside a corner it leaves half its width.',
    mends: [],
  },
  'shared-cut': {
    title: 'An edge for two parts',
    levels: warns,
    why: 'Each part’s cut takes half a kerf from the other.',
    mends: ['Cut along the lines, once'],
  },
  'loose-middle': {
    title: 'Loose middles',
    levels: notes,
    why: 'What lies in a hole is held by nothing once the hole is cut.',
    mends: ['Bridge'],
  },
  drops: {
    title: 'Pieces that drop through',
    levels: notes,
    why: 'What drops through the bed lies among the scraps, and burns on where the beam passes over it.',
    mends: ['Hold'],
  },
  tips: {
    title: 'Pieces that may tip',
    levels: notes,
    why: 'A piece that stands up is hit by the head, or shades what is cut next.',
    mends: ['Hold'],
  },
  heat: {
    title: 'Cuts close together',
    levels: notes,
    why: 'Heat gathers where cuts follow each other: edges char or melt, and thin stock warps.',
    mends: ['Spread in time'],
  },
  'run-up-short': {
    title: 'Little room to speed up',
    levels: notes,
    why: 'The head brakes while it burns, and the ends come out darker.',
    mends: [],
  },
  'slow-scan': {
    title: 'Sooner with lines turned',
    levels: notes,
    why: 'Scan lines along the longer side turn round less often.',
    mends: ['Each piece by itself', 'Lines at'],
  },
  'long-engraving': {
    title: 'A long engraving',
    levels: notes,
    why: 'It may keep the machine for longer than the rest of the job is worth.',
    mends: ['Lines of', 'Score the outlines'],
  },
  'mirrored-opaque': {
    title: 'Mirrored, and not seen through',
    levels: notes,
    why: 'Work is mirrored to be read through clear stock, or to be printed from.',
    mends: ['Burn it as drawn'],
  },
  'layer-off': {
    title: 'A layer is off',
    levels: ['blocks', 'notes'],
    why: 'What is on it stays out of this run.',
    mends: ['Switch'],
  },
  'layer-in-no-run': {
    title: 'Burns in no run',
    levels: warns,
    why: 'It is drawn to burn, and no run burns it.',
    mends: [],
  },
  'on-blocked': {
    title: 'On a blocked place',
    levels: warns,
    why: 'There is a hole of an earlier burn, a knot or a clamp: the piece is spoilt, or the head runs against it.',
    mends: [],
  },
  'hidden-parts': {
    title: 'Hidden parts',
    levels: notes,
    why: 'They are kept, and neither shown nor burnt.',
    mends: ['Bring', 'Remove for good'],
  },
  'too-many-dots': {
    title: 'More dots than can be worked out',
    levels: blocks,
    why: 'So fine a raster of so large a picture does not go into the memory of a page.',
    mends: [],
  },
  'blank-picture': {
    title: 'Picture that burns nothing',
    levels: warns,
    why: 'No dot of it is dark enough to burn.',
    mends: [],
  },
  'fading-engraved': {
    title: 'Fading fill engraved alike',
    levels: warns,
    why: 'Engraving knows no greys: what fades on the screen burns with one depth.',
    mends: ['Burn its greys'],
  },
  'picture-not-burnt': {
    title: 'Picture not burnt',
    levels: warns,
    why: 'A picture is only shown as long as no layer burns it.',
    mends: ['Burn its greys'],
  },
  'order-broken': {
    title: 'Burnt after its piece is cut',
    levels: warns,
    why: 'A piece that is loose may have moved.',
    mends: ['Burn in the usual order'],
  },
  'fills-cancel': {
    title: 'Engravings that cancel out',
    levels: warns,
    why: 'Where two engravings lie on each other exactly, neither burns.',
    mends: ['Remove', 'Unite overlaps'],
  },
  'fills-cross': {
    title: 'Engravings that cross',
    levels: warns,
    why: 'Where two engravings overlap, neither burns.',
    mends: ['Unite overlaps'],
  },
  'white-over': {
    title: 'White over an engraving',
    levels: warns,
    why: 'On a screen white hides what is under it; a beam knows no white.',
    mends: ['Make it a hole', 'Leave it out', 'Burn it'],
  },
  'border-gone': {
    title: 'A border is gone',
    levels: warns,
    why: 'Figure and ground are swapped within a border that is not there any more.',
    mends: [],
  },
  'no-landing': {
    title: 'Nowhere to land',
    levels: blocks,
    why: 'The run is to burn at a place that nobody has marked, and would burn somewhere else.',
    mends: [],
  },
  'scan-offset': {
    title: 'Scan offset',
    levels: ['warns', 'notes'],
    why: 'The beam comes on and goes off a little late: lines that are scanned there and back would burn apart.',
    mends: [],
  },
  'marks-apart': {
    title: 'Points that do not fit',
    levels: warns,
    why: 'What burns does not meet what is on the stock already.',
    mends: [],
  },
  decided: {
    title: 'Decided for you',
    levels: notes,
    why: 'A file did not say, or could not be followed: look whether it is as it was meant.',
    mends: [],
  },
} as const satisfies Record<string, FindingKind>;

export type FindingCode = keyof typeof catalogue;
