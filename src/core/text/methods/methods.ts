/** A figure or a term, explained for people. */
export interface Method {
  id: string;
  name: string;
  /** What it is, in two sentences at most: shown beside the term. */
  what: string;
  /** How to read it. */
  read: string;
  /** What it is not, or what to be careful with. */
  not: string;
  /** How it is computed. */
  computed: string;
  /** Where the method comes from; null for a plain count or sum. */
  source: string | null;
}

/** A group of methods, in the order in which a study needs them. */
export interface MethodGroup {
  title: string;
  methods: readonly Method[];
}

const COMPARING: readonly Method[] = [
  {
    id: 'contender',
    name: 'Contender and reference',
    what:
      'A contender is one machine with one profile. All contenders are compared with ' +
      'one of them, the reference.',
    read:
      'A square with a letter marks a contender. An outline means the stock profile, a ' +
      'solid square means a tuned one. The reference carries a flag.',
    not:
      'The reference is no winner and no standard. Choose the machine that your readers ' + 'know.',
    computed: 'You choose the contenders on Line-up and the reference on Question.',
    source: null,
  },
  {
    id: 'interval',
    name: 'Confidence interval',
    what:
      'A few prints show a figure only roughly. The interval says between which values ' +
      'the true figure probably is.',
    read:
      'The bar beside a dot strip is the 95 % interval, the tick is the estimate. A ' +
      'short bar means that you know the figure well. More prints make it shorter.',
    not:
      'It is not the range of the single parts. Parts can be outside it. Without ' +
      'repeated prints there is no interval.',
    computed:
      'One value per print counts, because parts of one print share its faults. The ' +
      'interval uses Student’s t and the scatter between prints.',
    source: 'Student, The probable error of a mean, 1908; Satterthwaite, 1946',
  },
  {
    id: 'verdict',
    name: 'Verdict',
    what:
      'A verdict says whether a contender is better or worse than the reference by more ' +
      'than chance. It also says when the difference is too small to matter.',
    read:
      '▲ better, ▽ worse, ≈ no difference that matters, ? too close to call, 1 one ' +
      'print each and no conclusion.',
    not:
      'A verdict is about this figure, these parts and these profiles. It does not say ' +
      'which machine to buy: a scorecard does that.',
    computed:
      'Welch’s t test on the values of prints, corrected for the number of contenders ' +
      '(Šidák). A difference is too small to matter when two one-sided tests show that ' +
      'it lies within what you stated.',
    source: 'Welch, 1947; Šidák, 1967; Schuirmann, 1987',
  },
  {
    id: 'smallest-difference',
    name: 'Difference that matters',
    what:
      'The smallest difference that would change your decision. You state it on ' +
      'Question, before you look at results.',
    read:
      'The pale band around the reference shows it. Inside the band, contenders are ' +
      'equal for your purpose.',
    not:
      'It is not the precision of your caliper. Your caliper must be several times ' +
      'better than it.',
    computed:
      'You state it. A difference below the repeatability of your instrument cannot be ' + 'shown.',
    source: null,
  },
  {
    id: 'prints-needed',
    name: 'Prints needed',
    what:
      'So many prints of each side would decide the comparison. The first number holds ' +
      'if the difference is as large as it looks, the second whichever way it lies.',
    read:
      '“4 prints each would tell” means: print four of each contender in all, then the ' +
      'verdict is decided with a chance of 80 %.',
    not: 'It is a forecast from the scatter so far. With few prints the forecast is rough.',
    computed: 'Power of the t test at 80 %, for a difference and for equality.',
    source: 'Cohen, Statistical Power Analysis, 1988',
  },
  {
    id: 'fairness',
    name: 'Fair comparison',
    what:
      'Two contenders differ in more than machine and profile: filament, nozzle, ' +
      'operator, day. The check lists what differs besides what you vary on purpose.',
    read:
      'Clean: nothing else differs. Noted: something differs and you accepted it. ' +
      'Confounded: the difference may come from something else.',
    not:
      'A clean check does not prove that the comparison is fair. It only knows what was ' +
      'written down.',
    computed: 'Facts of prints and settings are compared pair by pair.',
    source: 'Fisher, The Design of Experiments, 1935',
  },
];

const PARTS: readonly Method[] = [
  {
    id: 'accuracy',
    name: 'Mean deviation',
    what:
      'How far dimensions are from nominal on average, without their sign. Smaller is ' + 'better.',
    read:
      'Each dot is one specimen. 0.05 mm means that a dimension is on average 0.05 mm ' +
      'too large or too small.',
    not:
      'It does not say in which direction parts are off. The axis fit and the ' +
      'deviations by kind do.',
    computed:
      'The mean of the absolute deviations of all dimensions of a specimen, then of a ' +
      'print, then of an artefact. Repeated readings are averaged first.',
    source: null,
  },
  {
    id: 'tolerance-grade',
    name: 'Tolerance grade (IT)',
    what:
      'The finest ISO 286 grade that would hold 95 % of the measured dimensions. A ' +
      'lower number is finer.',
    read: 'Injection moulding reaches about IT10 to IT13, so IT11 is good for a printed part.',
    not: 'It is no certificate. It describes these prints of these sizes.',
    computed:
      'Each deviation is divided by the standard tolerance factor of its size. The 95th ' +
      'percentile is compared with the grades.',
    source: 'ISO 286-1',
  },
  {
    id: 'axis-fit',
    name: 'Scale and wall compensation',
    what:
      'Separates errors that grow with size from errors that are the same at every ' +
      'wall. The first need a scale factor, the second a compensation in the slicer.',
    read:
      'Enter the advised values in the slicer, then print once more. The table shows ' +
      'the expected deviation after the change.',
    not: 'Advice appears only where it is clearly better than no correction.',
    computed:
      'Least squares of the mean deviations over nominal sizes, outer and inner walls apart.',
    source: 'Draper and Smith, Applied Regression Analysis',
  },
  {
    id: 'surface',
    name: 'Surface index',
    what:
      'How good surfaces look, from 0 to 100. Inspectors grade each defect of each zone ' +
      'from 0 (none) to 4 (severe).',
    read:
      '100 means that no inspector found a defect. A difference of 5 points is visible ' +
      'side by side.',
    not:
      'Grades are opinions. The agreement between inspectors says how far to trust ' +
      'them; blind panels and measures on photos are checks.',
    computed:
      'In each zone the worst defect counts, by its mean grade over the inspectors. ' +
      'Zones are averaged by their weight.',
    source: 'Krippendorff, 2011 (agreement)',
  },
  {
    id: 'photo-measures',
    name: 'Measures on photos',
    what:
      'Ringing, layer lines, strings, gaps and texture, measured in the picture of a ' +
      'zone. They are numbers without an inspector.',
    read: 'Compare only photos of the same view in the same light: the label names the light.',
    not:
      'They measure contrast in a picture, not depth in mm. Another lamp gives another ' +
      'number.',
    computed:
      'Each measure has a model of the luminance along or across the region; the page ' +
      'shows whether the pattern is real.',
    source: 'docs/calculations.md, Measures on photos',
  },
  {
    id: 'panels',
    name: 'Blind panel',
    what:
      'People judge parts without knowing whose they are. The panel says whether they ' +
      'see a difference, and which part they prefer.',
    read:
      '“70 of 100 people would prefer it” is the estimate, with its interval. 50 means ' +
      'no preference.',
    not: 'It says nothing about those who did not judge, and nothing about other zones.',
    computed:
      'Preferences by the model of Bradley and Terry; differences by the triangle test, ' +
      'against guessing.',
    source: 'Bradley and Terry, 1952; ISO 4120',
  },
  {
    id: 'limits',
    name: 'Limits of a ladder',
    what:
      'A ladder is a row of steps that become harder, such as overhangs of 30° to 75°. ' +
      'The limit is the hardest step that still works.',
    read: 'The strip shows the limit of each specimen and the mean.',
    not: '“Above” means that the hardest step still works: the true limit is further.',
    computed: 'The hardest step up to which every step passes, averaged over prints.',
    source: null,
  },
];

const MACHINES: readonly Method[] = [
  {
    id: 'success',
    name: 'Success rate',
    what:
      'The share of prints that were good without help. Prints that failed by an ' +
      'operator’s mistake do not count.',
    read: '“14 of 14 succeeded: failure rate below 19 %” is the honest reading of a perfect row.',
    not:
      'Five good prints of five do not show a reliable machine. The interval says how ' +
      'little five prints show.',
    computed: 'Successes over prints, with the exact interval.',
    source: 'Clopper and Pearson, 1934',
  },
  {
    id: 'incidents',
    name: 'Incidents in 100 h',
    what:
      'How often something goes wrong per 100 hours of printing. Each incident has a ' +
      'cause and is counted once.',
    read: 'Fewer is better. Downtime and hands-on time say how much each one costs you.',
    not: 'Incidents that nobody wrote down are missing.',
    computed: 'Incidents over hours, with the exact interval for counts.',
    source: 'Garwood, 1936',
  },
  {
    id: 'time',
    name: 'Print time relative to the reference',
    what: 'How long a contender prints compared with the reference. 0.80 means 20 % less time.',
    read: 'Heating and pauses are left out and listed separately. Each dot is one artefact.',
    not: 'A faster print is no better print: read it beside accuracy and surface.',
    computed:
      'The ratio of the geometric means of print times, averaged over the artefacts that both printed.',
    source: null,
  },
  {
    id: 'cost',
    name: 'Cost of a good part',
    what:
      'What one good part costs: filament, energy, the machine’s hours, upkeep and ' +
      'hands-on time. Failed attempts are included.',
    read:
      'The bar shows what the cost consists of. Post-processing can be included with ' +
      'its own switch.',
    not: 'It uses your prices and your wage, from Question.',
    computed:
      'All costs of all attempts, divided by the good copies. The interval comes from a ' +
      'bootstrap over prints.',
    source: 'Efron, Bootstrap methods, 1979',
  },
  {
    id: 'waste',
    name: 'Waste',
    what:
      'The share of filament that did not become a good part: failed prints, supports, ' + 'purge.',
    read: 'Smaller is better.',
    not:
      'Where nobody weighed, the sliced file’s estimate counts; the page says for how ' +
      'many prints.',
    computed: 'Grams thrown away over grams used.',
    source: null,
  },
  {
    id: 'noise',
    name: 'Noise at 1 m',
    what:
      'The sound level while printing, converted to a distance of 1 m. 3 dB(A) less is ' +
      'clearly quieter, 10 dB(A) less sounds half as loud.',
    read: 'Compare only levels that were measured with one instrument in one room.',
    not: 'It does not describe the sound. A whine can be annoying at a low level.',
    computed: 'Levels are averaged by energy and converted with 20·log₁₀ of the distance.',
    source: null,
  },
  {
    id: 'gauge',
    name: 'Gauge study',
    what:
      'How much of the variation in readings comes from the instrument and the ' +
      'operators. Do it once per instrument.',
    read:
      'Below 10 % is good, up to 30 % may do. “5 different sizes” is the least for a ' +
      'useful instrument.',
    not: 'A good result for one kind of part does not hold for soft or tiny ones.',
    computed: 'Analysis of variance over parts, operators and trials.',
    source: 'AIAG, Measurement Systems Analysis',
  },
];

const DECIDING: readonly Method[] = [
  {
    id: 'scorecard',
    name: 'Scorecard',
    what:
      'A scorecard states for one use how much each figure counts. It turns all figures ' +
      'into one score from 0 to 100.',
    read: 'The score is a range where evidence is missing. Move a weight to see what changes.',
    not: 'Weights are an opinion. Another use needs another card.',
    computed: 'Each value becomes a utility by its curve; utilities are averaged by weight.',
    source: 'Keeney and Raiffa, Decisions with Multiple Objectives, 1976',
  },
  {
    id: 'simulations',
    name: 'Comes first in … of simulations',
    what:
      'The figures are uncertain. The page draws each figure 20 000 times from its ' +
      'uncertainty, and the weights from near yours, and counts who comes first.',
    read: '75 % means a clear favourite, 40 % means that several contenders could be best.',
    not: 'It is not the chance that you will like the machine.',
    computed: 'Monte Carlo with a stated seed, so that the same study gives the same number.',
    source: 'Lahdelma and Salminen, SMAA-2, 2001',
  },
  {
    id: 'turning-price',
    name: 'Turning price',
    what: 'Up to this price the best contender stays the best. Above it another one comes first.',
    read: 'Compare it with the price today.',
    not: 'It assumes that the other prices stay as they are.',
    computed: 'The price at which the scores of the first two are equal.',
    source: null,
  },
  {
    id: 'machine-or-profile',
    name: 'Machine or profile',
    what:
      'How much of the difference comes from the machine, how much from the profile, ' +
      'and whether tuning helps some machines more than others.',
    read: 'The shares are parts of the variation. The gains of tuning stand machine by machine.',
    not: 'It needs each machine with each profile, and repeated prints.',
    computed: 'Analysis of variance of type II, with the artefact as a block.',
    source: 'Fox, Applied Regression Analysis, 8.2.5',
  },
  {
    id: 'sweep',
    name: 'Sweep',
    what:
      'One setting in steps on one machine. It finds the last step at which no figure ' +
      'is worse by more than matters.',
    read: 'The dashed line marks the limit. The text names the figure that stops it.',
    not: 'Values between two steps are not tested.',
    computed: 'Step by step from the safe end, each figure must be shown not to be worse.',
    source: 'Maurer, Hothorn and Lehmacher, 1995 (fixed sequence)',
  },
];

/** All methods, by group. */
export const METHODS: readonly MethodGroup[] = [
  { title: 'Comparing', methods: COMPARING },
  { title: 'Parts', methods: PARTS },
  { title: 'Machines and instruments', methods: MACHINES },
  { title: 'Deciding', methods: DECIDING },
];

/** The method that explains a term; undefined where there is none of this id. */
export const methodOf = (id: string): Method | undefined =>
  METHODS.flatMap(({ methods }) => methods).find((method) => method.id === id);
