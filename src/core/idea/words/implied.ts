/** What a word brings along although nobody names it, unless something else is named for the same. */
export interface Implied {
  words: readonly string[];
  /** Things of the table; none: the words look like a thing, and are none. */
  things: readonly string[];
}

/**
 * Things that are known by one name and are made of several: who says doorbell means something to press and something to hear. What
 * is named inside the name ("camera slider": no slider) does not count by itself.
 */
export const MADE_OF: readonly Implied[] = [
  {
    words: [
      "(?:safe|box|chest|locker|door|drawer) with (?:a |an )?(?:rfid|nfc|card|chip|tag) (?:lock|reader)|(?:rfid|nfc|card|chip|tag) (?:safe|lock|box|chest)",
    ],
    things: ["tag", "turn"],
  },
  {
    words: [
      "(?:when|while|if) (?:i'm|i am|we're|we are) (?:away|at (?:school|work|home)|on holiday|out|not there|asleep)",
    ],
    things: [],
  },
  { words: ["at (?:home|work|school|the office)\\b"], things: [] },
  { words: ["tool ?box|guitar tuner"], things: [] },
  {
    words: ["open (?:the )?windows\\b(?=[^.;!?]*$)(?<=(?:tell|tells|warn|remind|says?|when to|time to)[^.;!?]{0,30})"],
    things: [],
  },
  {
    words: ["(?:model |toy |doll's? )?(?:lift|elevator)s?\\b(?= (?:with|for|that|which|to)|$)"],
    things: ["drive", "button"],
  },
  {
    words: [
      "(?:board |party |card )?game timer|timer for (?:a |the |our |my )?(?:\\w+ )?(?:game|exam|lesson|talk|cooking|homework|tea|eggs?|piano|sport\\w*|workout)",
    ],
    things: ["digits", "beep"],
  },
  { words: ["piano (?:practice|lesson|teacher)|drum practice"], things: [] },
  {
    words: ["clocks? with (?:only )?(?:one|two|a|real|wooden|cardboard) hands?|clock hands?"],
    things: ["time", "steps"],
  },
  { words: ["(?:school |tour )?bus(?: stop)?\\b(?! that)"], things: [] },
  { words: ["(?:on|at|to|for) (?:the|my|our|a) (?:computer|laptop|pc)(?= (?:with|by|using|when|as)|$)"], things: [] },
  { words: ["automatic (?:night ?)?(?:light|lamp)s?|night ?lights?\\b(?! for)"], things: ["light-level", "strip"] },
  { words: ["countdown timers?"], things: ["digits"] },
  { words: ["gas leak (?:alarm|detector|warn\\w*|sensor)|gas leaks?"], things: ["gas", "alert"] },
  { words: ["gps speedometer"], things: ["position", "text"] },
  {
    words: ["(?:automatic )?(?:pet|cat|dog|fish|chicken|hamster|rabbit|horse|animal) feeder"],
    things: ["time", "turn"],
  },
  {
    words: ["(?:handheld |retro |pocket )?game (?:console|boy)s?|video game|snake(?: game| on)|tetris|pong\\b"],
    things: ["picture", "stick"],
  },
  { words: ["magic (?:8|eight) ball"], things: ["shake", "text"] },
  { words: ["morse (?:code )?(?:transmitter|sender|telegraph)"], things: ["button", "radio"] },
  { words: ["mouse ?traps?(?: alarm)?|(?:mouse|rat) trap (?:alarm|monitor|watch)"], things: ["obstacle", "alert"] },
  { words: ["(?:sonar|blind|white) cane"], things: ["distance", "beep"] },
  { words: ["tic tac toe|four in a row|connect four"], things: ["button", "strip"] },
  { words: ["laser tag|light gun"], things: ["button", "light-level"] },
  { words: ["smoke detector test|ice cream|light ?house keeper"], things: [] },
  { words: ["emergency (?:light|lamp)"], things: ["light-level", "lamp"] },
  { words: ["(?:music|musical) box[^.;!?]{0,20}open"], things: ["light-level", "melody"] },
  {
    words: ["(?:terrarium|vivarium|greenhouse|grow (?:box|tent)) (?:control\\w*|computer|automation)"],
    things: ["temperature", "humidity", "appliance"],
  },
  { words: ["aquarium (?:control\\w*|computer|automation)"], things: ["liquid-temperature", "time", "room-light"] },
  { words: ["robot (?:face|head)"], things: ["turn"] },
  { words: ["(?:dew|frost) point"], things: ["humidity"] },
  { words: ["door ?bells?\\b", "(?:service|reception|call|school room) bells?\\b"], things: ["button", "beep"] },
  { words: ["school bell|lesson bell|break bell"], things: ["time", "beep"] },
  {
    words: ["park(?:ing)? (?:aid|sensor|help\\w*|assist\\w*)", "reversing (?:aid|alarm|sensor)"],
    things: ["distance", "alert"],
  },
  { words: ["theremin"], things: ["distance", "melody"] },
  {
    words: [
      "simon(?: says)?(?: game)?|(?:memory|colour|sequence) game(?: with lights)?|repeat (?:the|a) (?:pattern|sequence)",
    ],
    things: ["button", "lamp", "beep"],
  },
  {
    words: ["reaction (?:game|timer?|tester?|test)s?|whack a mole|quick ?draw|reflex\\w*"],
    things: ["button", "lamp"],
  },
  {
    words: [
      "quiz (?:buzzers?|game|show|box|machine)|game show buzzers?|buzzers? for (?:a |the |our )?(?:\\w+ )?quiz|who pressed first",
    ],
    things: ["button", "beep"],
  },
  { words: ["stop ?watch(?:es)?|chronometer"], things: ["button", "digits"] },
  {
    words: [
      "(?:egg|kitchen|tea|tooth ?brush(?:ing)?|teeth|visual|reading|screen time|exam|cooking|pomodoro|speech|game|hour ?glass|sand|study|time out) ?timers?|pomodoro|hour ?glass|count(?:s|ing)? down and (?:beeps?|buzz\\w*|rings?)|minute timer",
    ],
    things: ["digits", "beep"],
  },
  {
    words: [
      "(?:electronic |digital |led )?(?:dice|die that)\\b|roll(?:s|ing)? (?:a |the )?dice|coin (?:flip|toss)|random number",
    ],
    things: ["button", "digits"],
  },
  {
    words: [
      "(?:secret |my |a |the |toy |money )safes?\\b(?! (?:temp|level|dist|place|way))|strong ?box|treasure (?:box|chest) (?:with|that|which|lock)",
    ],
    things: ["code", "turn"],
  },
  {
    words: [
      "(?:door|electronic|bike|code|combination|smart|number|drawer|cupboard|locker|box|finger|card|pad|rfid|nfc) ?locks?\\b|padlock",
    ],
    things: ["turn"],
  },
  { words: ["door ?locks?|smart lock"], things: ["turn"] },
  {
    words: ["(?:toy |small |little |mini |electric |light )?pianos?\\b|toy organ|button organ"],
    things: ["button", "melody"],
  },
  { words: ["(?:drum|air drum)(?: kit| set| pad| machine)?s?\\b|finger drum\\w*"], things: ["touch", "beep"] },
  {
    words: [
      "(?:fruit|banana|apple|vegetable|carrot|playdough|foil|water|paper|cardboard) (?:piano|keyboard|instrument|organ|drum|synth\\w*|music|guitar)|instrument (?:from|of|out of|made of|made from|with) (?:\\w+ )?(?:fruits?|bananas?|vegetables?|foil|pencils?|carrots?)",
    ],
    things: ["touch", "melody"],
  },
  { words: ["laser harp|air (?:piano|harp|guitar)"], things: ["distance", "melody"] },
  {
    words: [
      "morse (?:code )?(?:key|trainer|tutor|tapper|button|machine|practice)|learn(?:ing)? morse|practi[sc]e morse",
    ],
    things: ["button", "beep"],
  },
  { words: ["tele ?graphs?|walkie ?talkies?|intercoms?"], things: ["button", "beep", "radio"] },
  {
    words: [
      "step counter|pedometer|count(?:s|ing)? (?:my |the |our )?(?:jumps|steps|push ups|sit ups|squats|skips)|(?:jump|push up|sit up|squat|skipping) (?:counter|rope)",
    ],
    things: ["tilt", "digits"],
  },
  { words: ["(?:magic )?wands?\\b|light (?:sabre|saber|sword)"], things: ["tilt", "strip"] },
  { words: ["lie (?:detector|tester|machine)|love (?:tester|meter)"], things: ["touch", "lamp"] },
  { words: ["buzz wire|hot wire game|steady hand|wire loop game"], things: ["touch", "beep"] },
  { words: ["pin ?ball(?: (?:machine|table|game|counter))?"], things: ["count-presses", "digits", "beep"] },
  { words: ["vending machines?|gum machine|gum ?ball machine"], things: ["button", "turn"] },
  {
    words: ["(?:music|barrel) (?:box|organ)\\b[^.;,!?]{0,24}\\b(?:hand|crank|handle)|hurdy ?gurdy"],
    things: ["knob", "melody"],
  },
  {
    words: ["(?:egg |chick(?:en)? |yoghurt |yogurt )?incubators?\\b(?! turn)|brooder"],
    things: ["temperature", "appliance"],
  },
  { words: ["egg (?:incubator )?turners?|turns? (?:the )?eggs"], things: ["steps"] },
  { words: ["thermostats?"], things: ["temperature", "appliance"] },
  { words: ["(?:automatic|sliding|self opening) doors?"], things: ["motion", "turn"] },
  {
    words: [
      "(?:soap|sanitizer|sanitiser|hand gel|gel|disinfectant) (?:dispenser|machine)s?|dispens(?:e|es|ing) (?:hand )?(?:soap|sanitizer|sanitiser|gel)(?: without touching)?",
    ],
    things: ["obstacle", "pump"],
  },
  {
    words: [
      "(?:smart|automatic|touchless|talking) (?:bin|trash can|rubbish bin|waste bin|dust ?bin)s?|bin (?:whose|that) (?:lid )?opens",
    ],
    things: ["distance", "turn"],
  },
  {
    words: ["(?:chicken|hen|duck) ?(?:coop|house)? (?:door|hatch|gate|flap)s?|coop (?:door|hatch)|pop ?hole"],
    things: ["light-level", "turn"],
  },
  {
    words: ["sun ?(?:track|follow)\\w*|solar track\\w*|(?:track|follow)(?:s|ing)? the sun"],
    things: ["light-level", "turn"],
  },
  { words: ["weather (?:station|box|house|display|logger|forecast\\w*|clock)"], things: ["weather", "text"] },
  { words: ["rain (?:gauge|meter|collector|counter)"], things: ["rain"] },
  { words: ["(?:wind) (?:gauge|meter|vane and speed)"], things: ["count-turns"] },
  { words: ["wind vane|weather (?:vane|cock)"], things: ["heading"] },
  {
    words: [
      "(?:toilet|bathroom|loo|shower|changing room|meeting room)\\b[^.;,!?]{0,12}\\b(?:occupied|free|taken|engaged|busy)(?: (?:sign|light|lamp))?|(?:occupied|engaged) (?:sign|light)",
    ],
    things: ["door", "lamp"],
  },
  {
    words: ["(?:busy|on air|recording|do not disturb|quiet please) (?:light|lamp|sign)s?"],
    things: ["button", "lamp"],
  },
  {
    words: ["burglar alarms?|intruder alarms?|alarm systems?|(?:room|house|home|bed ?room) alarms?\\b"],
    things: ["motion", "alert"],
  },
  { words: ["(?:smoke|gas|co|carbon monoxide) (?:alarm|warn\\w*|detector|alert)s?"], things: ["gas", "alert"] },
  { words: ["fire alarms?|fire (?:warn\\w*|detector)"], things: ["flame", "alert"] },
  { words: ["(?:fridge|freezer|refrigerator) (?:door )?alarms?"], things: ["alert"] },
  { words: ["(?:flood|water|leak) (?:alarm|warn\\w*|detector|alert|sensor)s?"], things: ["water-level", "alert"] },
  { words: ["frost (?:alarm|warn\\w*|guard|alert)s?"], things: ["temperature", "alert"] },
  {
    words: ["(?:bike|bag|laptop|theft|backpack|suitcase|scooter|tent|locker) (?:alarm|guard)s?"],
    things: ["shake", "alert"],
  },
  { words: ["(?:letter|mail|post) ?box(?:es)?"], things: ["door"] },
  { words: ["knock (?:detector|lock|sensor|code)|secret knock"], things: ["shake"] },
  { words: ["(?:spirit|bubble) levels?"], things: ["tilt", "lamp"] },
  { words: ["torch(?:es)?\\b|flash ?lights?|head ?lamps?|lanterns?"], things: ["button", "lamp"] },
  {
    words: [
      "(?:bike|bicycle|cycle|turn) (?:indicator|signal|blinker)s?(?: lights?)?|indicator lights? for (?:my |a |the )?(?:bike|bicycle)",
    ],
    things: ["button", "lamp"],
  },
  { words: ["(?:bike|bicycle) (?:computer|speedometer)"], things: ["count-turns", "text"] },
  { words: ["score ?boards?|score ?keepers?"], things: ["count-presses", "digits"] },
  { words: ["(?:visitor|people|bee|bird|animal|guest) counters?"], things: ["count-people", "digits"] },
  { words: ["(?:lap|coin|marble|ball|bottle|parcel) counters?"], things: ["count-turns", "digits"] },
  { words: ["(?:goal|row|hand|click|point|vote) counters?"], things: ["count-presses", "digits"] },
  { words: ["traffic lights?"], things: ["traffic"] },
  { words: ["(?:dancing|music|musical) fountains?|fountain (?:that )?dances"], things: ["loudness", "pump"] },
  { words: ["(?:baby|bed ?room) (?:monitor|phone|alarm)"], things: ["loudness", "alert"] },
  {
    words: ["noise (?:traffic light|lamp|light|ampel)|(?:noise|class ?room|loudness) traffic light"],
    things: ["loudness", "lamp"],
  },
  { words: ["co ?2 traffic lights?"], things: ["air-quality", "traffic"] },
  { words: ["metal(?:ic)? marble run|marble (?:run|track|machine)s?"], things: [] },
  {
    words: ["light (?:organ|show)|(?:disco|party) (?:lights?|lamp|ball)|music visuali[sz]er|vu meter|dancing lights"],
    things: ["loudness", "strip"],
  },
  { words: ["candles?\\b(?! (?:still |is|was|goes|out|flame|burns|are))|tea lights?"], things: ["lamp"] },
  {
    words: [
      "wake ?up (?:light|lamp)|sun ?rise,? (?:alarm|lamp|light|clock|simulat\\w*)(?: clock| with)?|dawn (?:lamp|light|simulator)|(?:alarm clock|wake\\w*) [^.;,!?]{0,20}\\bwith light",
    ],
    things: ["time", "strip"],
  },
  { words: ["talking clocks?|speaking clocks?"], things: ["time", "speech"] },
  { words: ["alarm clocks?[^.;,!?]{0,12}\\b(?:vibrat\\w*|shak\\w*)"], things: ["time", "drive"] },
  { words: ["chess clocks?|chess timers?"], things: ["button", "digits"] },
  {
    words: ["(?:blow|put)s? (?:it |the candle )?out(?= |$|[.,;!?])(?<=(?:robot|fan|car|machine)[^.;!?]{0,60})"],
    things: ["drive"],
  },
  { words: ["useless (?:box|machine)"], things: ["button", "turn"] },
  { words: ["secret knocks?"], things: ["shake"] },
  { words: ["diary locks?|(?:diary|drawer|box|locker|cupboard|door) (?:\\w+ )?locks?\\b"], things: ["turn"] },
  { words: ["musical (?:stairs?|steps?|floor|carpet)|piano (?:stairs|mat|floor)"], things: ["press", "melody"] },
  { words: ["(?:greeting|birthday|christmas|musical) cards?"], things: ["light-level", "melody"] },
  { words: ["heart ?(?:shaped|shape)"], things: [] },
  { words: ["alarm clocks?"], things: ["time", "beep"] },
  {
    words: ["(?:digital |led |wall |desk |world |word |binary |table |fuzzy |school )?clocks?\\b(?! hands?)"],
    things: ["time", "digits"],
  },
  { words: ["(?:countdown|count down)s?\\b(?: to| until| for| clock)?"], things: ["digits"] },
  { words: ["(?:conveyor|production) (?:belt|line)"], things: ["drive"] },
  {
    words: [
      "(?:colou?r|sweet|candy|bean|brick|marble|m ?and ?m) sort\\w*|sort(?:s|ing|er)? [^.;,!?]{0,24}by (?:their )?colou?rs?",
    ],
    things: ["colour", "turn"],
  },
  { words: ["(?:turn|rotate|move|drive)s? (?:the |a )?motor (?:exactly|precisely|by|to)\\b"], things: ["steps"] },
  { words: ["(?:balancing|self balancing) robot|robot (?:that )?balances"], things: ["tilt", "drive"] },
  {
    words: [
      "line (?:follower|following robot|robot)|(?:robot|car|buggy) (?:that )?follows (?:a |the )?(?:black )?line",
    ],
    things: ["line", "drive"],
  },
  {
    words: ["obstacle (?:avoid\\w*)(?: robot| car)?|robot vacuum|vacuum robot|maze (?:robot|solver)"],
    things: ["obstacle", "drive"],
  },
  { words: ["sumo (?:robot|bot)s?"], things: ["obstacle", "line", "drive"] },
  { words: ["camera (?:slider|dolly|slide|rail)s?|sliders? for (?:a |the |my )?camera"], things: ["steps"] },
  { words: ["(?:railway|level) crossing barriers?|railway (?:barrier|gate)s?"], things: ["turn"] },
  {
    words: [
      "(?:bird|nest|nesting) ?box(?:es)?|treasure map|tool ?box|pizza box|jewell?ery box|sand ?box|game box|match ?box|juke ?box|cardboard box|in a box",
    ],
    things: [],
  },
  {
    words: [
      "water ?melon|water ?proof|rain ?proof|weather ?proof|splash ?proof|light ?weight|lightly|water colours?|flower ?shop|ground floor|down to earth|earth (?:wire|day)|bed ?time|bed ?rooms?|pot luck|home ?work|key ?holder|keep an eye on|at the touch of|in (?:touch|line)|on line|light years?|head ?lines?|screen ?time|remote (?:island|village|place)|wind(?:ow)? ?sill|rainbow trout",
    ],
    things: [],
  },
  { words: ["pots?\\b(?= of (?:tea|coffee|soup|jam|honey|paint))"], things: [] },
];

/**
 * Words that say little by themselves: they count only where nothing else is named for the same. "Show" is a display unless a
 * needle, digits or pictures are named; "send" is a radio unless the way is named.
 */
export const WEAK: readonly Implied[] = [
  { words: ["burglar\\w*", "intruders?", "robbers?", "thie(?:f|ves)"], things: ["motion"] },
  { words: ["notifier|reminder"], things: ["alert"] },
  {
    words: [
      "(?<!light )(?<!talent )(?<!quiz )(?:show|shows|showing)\\b(?: (?:it|them|that|this|me|us|the|how|what|all|both|on a)\\b)*",
      "display(?:s|ed|ing)?\\b",
      "tells? (?:me |us )?(?:the|how|what|which)\\b(?! (?:time to))(?! class)(?! teacher)(?! children)(?! kids)",
      "(?:see|read) (?:it|the|how|what)\\b",
      "reads? out|print(?:s|ed)?\\b(?! ?er)|written on",
    ],
    things: ["text"],
  },
  {
    words: [
      "(?<!green house )(?<!traffic )\\b(?:lights?|lamps?)\\b(?! (?:barrier|sensor|meter|gate|level|beam|enough|in the sky))(?! is (?:it|in))",
      "lit\\b|illuminat\\w*|shin(?:e|es|ing)\\b",
      "(?<!scrolling |shop |welcome |door )(?:signs?|signals?)\\b",
    ],
    things: ["lamp"],
  },
  {
    words: [
      "(?<!story )(?:tell(?! how)(?! what)|tells(?! how)|warn|warns|warning|warnings|alert|alerts|remind|reminds|notify|notifies|inform|informs|message|call|calls|wake|wakes)\\b(?: (?:me|us|you|them|mum|mom|dad|my \\w+|the \\w+|everybody|everyone|people|somebody))?(?: know)?(?: up)?\\b(?! (?:(?:me|us|you|them) )?(?:the (?!class|teacher|children|kids|pupils|family|neighbou?rs)|how|what|which|a joke|stories|to each|each)\\b)",
      "alarm(?:s|ed)?\\b(?! ?clock)",
      "(?:know|find out|see|learn|notice|hear|sure|forget) (?:when|if|whether|as soon|that)\\b",
      "remind\\w*|do(?:n't| not) forget",
      "notification|notice|attention",
      "let(?:s)? (?:me|us|mum|dad|them|everyone|everybody) know",
      "(?:scold|nag|annoy|scare|yell|cry|cries|complain)s?\\b",
      "keep (?:\\w+ ){0,2}?out of (?:my |the )",
    ],
    things: ["alert"],
  },
  {
    words: [
      "(?:bell|bells|gong)\\b",
      "rings?\\b(?! of)(?! light)(?! finger)(?<!of a ring)(?<!a ring)(?<!the ring)",
      "(?:hear|heard|audible|acoustic|sounds?\\b(?! (?:like|level|meter|sensor|good|nice)))",
    ],
    things: ["beep"],
  },
  {
    words: [
      "send(?:s|ing)?\\b(?! (?:me|us|mum|dad|an alert|an alarm)\\b)",
      "(?:a )?messages?\\b(?= (?:to|from|when|if))",
      "signals? to\\b",
      "two (?:boards|micro ?controllers)|both boards",
    ],
    things: ["radio"],
  },
  { words: ["timers?\\b", "(?<!from )time\\b(?= (?:to|of|for|is up))"], things: ["time"] },
  {
    words: [
      "(?:count|counts|counting|counter|counters)\\b(?! ?down)",
      "how (?:often|many times)\\b",
      "number of times",
    ],
    things: ["count-presses"],
  },
  {
    words: [
      "(?<!model |slot |toy |for |my |the |our |school |your )(?:cars?|trains?|robots?|boats?|trucks?|tanks? (?:that|which) (?:drive|roll)\\w*|vehicles?|locomotives?|bus|tractors?)\\b(?! ?park)(?! ?track)(?! is| comes| passes| arrives| goes past)(?= (?:that|which|to|i|with|can|for|who|controlled|forwards?|by|from)|$|[.,;!?])",
    ],
    things: ["drive"],
  },
  {
    words: [
      "(?:open|opens|close|closes|lift|lifts|raise|raises|lower|lowers|unlock|unlocks|tip|tips|flip|flips|wave|waves|nod|nods|wag|wags)\\b(?! (?:door|window|fridge|for|too))",
    ],
    things: ["turn"],
  },
  {
    words: [
      "(?:measur(?:e|es|ing)|experiment)s? [^.;,!?]{0,20}(?:every|each) (?:\\d+|ten|five|two|thirty|few) (?:minute|second|hour)s?",
    ],
    things: ["record"],
  },
  { words: ["(?:coloured|color|colour)\\b"], things: ["lamp"] },
];
