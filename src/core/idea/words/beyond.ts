/** What people ask for that boards of this kind can't do, or must not, and what to do instead. */
export const BEYOND: readonly { words: string; says: string }[] = [
  {
    words:
      "(?:(?<!for )photos?(?! ?gate)(?! ?booth)|photograph\\w*|video\\w*|films?|filming|web ?cams?|live ?stream\\w*|camera (?:trap|picture|image)s?|(?:a|the|with|take|takes) cameras?)\\b(?! slider)(?! dolly)",
    says: "Pictures from a camera are more than these boards hold: sense motion, distance or light instead, and let it trip a camera of its own",
  },
  {
    words:
      "(?:face|facial|speech|voice|image|object|gesture|handwriting) recogni\\w*|recogni[sz]es? (?:my |a |the )?(?:face|voice|speech|person|words?)|voice (?:control\\w*|command\\w*|assistant)|(?:understand|listen)s? to (?:what|my words|commands)|artificial intelligence|machine learning",
    says: "It hears how loud it is, not words, and sees no faces: a clap, a card, a code or a button can do it",
  },
  {
    words: "finger ?prints?|iris scan\\w*",
    says: "No reader of fingerprints is in the catalogue: a card or a code opens as well",
  },
  {
    words: "drones?\\b|quad ?copters?|fly(?:s|ing)? (?:by itself|a plane|helicopter)|helicopters?",
    says: "What flies by itself is not planned here: it can hurt people, and has rules of its own",
  },
  {
    words:
      "mains\\b(?! adapter)|230 ?v\\w*|240 ?v\\w*|120 ?v(?:olt)?\\b|110 ?v(?:olt)?\\b|wall (?:socket|outlet)s?|power (?:socket|outlet)s?|high voltage",
    says: "Mains can kill: leave it to a licensed person and the local rules. A ready-made switched socket with a low-voltage input keeps it out of your hands",
  },
  {
    words: "(?:charge|charging) (?:my |the |a |lithium |li ?ion |li ?po )+(?:batter\\w+|cells?)|li ?po\\b|lithium",
    says: "Lithium cells burn when they are charged or used wrongly: take a charger part with protection, and never leave it alone",
  },
  {
    words: "(?:medical|medicine dose|insulin|life ?saving|pacemaker|diabet\\w*|epilep\\w*)",
    says: "Nothing here is a medical device: health must not depend on it",
  },
  {
    words: "(?:radioactiv\\w*|geiger|x ?rays?|laser (?:cutter|cutting|engrav\\w*))",
    says: "That needs parts and care that are not in this catalogue",
  },
  {
    words:
      "electric (?:fence|shock)s?|(?:gives?|giving) (?:\\w+ )?(?:a |an )?(?:electric )?shocks?|tasers?|stun guns?|explosi\\w*|fire ?works?|detonat\\w*|ignit\\w*|weapons?",
    says: "What is meant to hurt, burn or burst is not planned here",
  },
  {
    words:
      "spy(?:ing)? (?:on|out)|eavesdrop\\w*|secretly (?:record|film|listen|watch|track)\\w*|hidden (?:cameras?|microphones?|trackers?)",
    says: "Listening to people, filming or following them without their knowledge is forbidden in many places: ask them first",
  },
];
