/**
 * Words that mean the same to us, by class; forms (plural, past, -ing) come by themselves, `!` keeps a word as it is. What a class
 * gains, every pattern that speaks of it understands.
 */
export const CLASSES = {
  plant:
    "plant, flower, flower pot, plant pot, pot, herb, basil, tomato, seedling, lawn, garden, flower bed, raised bed, garden bed, vegetable, orchid, cactus, cacti!, rose, hedge, strawberry, salad, lettuce, mint, bonsai, succulent, house plant, grass, fern, chilli, chili, pepper, cucumber, pumpkin, bean, sunflower, window box, balcony box, ivy, palm, crop, allotment, sprout, cress",
  soil: "soil, earth, potting mix, ground, dirt, flower bed, raised bed, substrate",
  dry: "dry, drier!, dryness!, wet, wetness!, thirsty, moist, moisture!, damp, wilt, droop, parched!, dried out!, drought!, water",
  person:
    "somebody, someone, anybody, anyone, nobody, everyone, everybody, person, people!, human, visitor, guest, child, children!, kid, burglar, thief, thieves!, intruder, robber, friend, brother, sister, sibling, mum, mom, dad, mother, father, parent, grandma, grandpa, grandmother, grandfather, teacher, pupil, student, neighbour, neighbor, stranger, uncle, aunt, cousin, postman!, post woman!, mail man!, courier, baby, toddler, player, customer, passer by!, class mate",
  animal:
    "animal, cat, dog, bird, hedgehog, squirrel, hen, chicken, rabbit, hamster, mouse!, mice!, rat, fox, foxes!, deer!, bee, fish, horse, pony, cow, sheep!, pet, guinea pig, tortoise, turtle, snake, lizard, gecko, frog, toad, duck, goose!, geese!, marten, raccoon, puppy, kitten, parrot, budgie, owl, boar, wolf!, wolves!, insect, spider, snail",
  come: "come, came!, enter, arrive, approach, approaches!, pass, walk by, walk past, walk in, walk into, walk up, walk, near!, visit, sneak, creep, crept!, is there!, are there!, goes by!, go by!, goes past!, go past!, go into!, goes into!, go in!, goes in!, gets home!, comes home!, moves past!, runs past!, is around!, is in the room!, are in the room!, is in my room!, leave",
  openable:
    "front door, back door, garage door, fridge door, door, window, gate, lid, box, boxes!, drawer, cupboard, garage, hatch, chest, fridge, freezer, refrigerator, letter box, mail box, post box, wardrobe, cabinet, locker, shed, coop, suitcase, cookie jar, biscuit tin, cookie tin, jar, tin, diary, treasure, container, cage, hutch, stable, flap, safe, case, bin",
  opened: "open, close, closed!, shut, left open!, ajar!, unlocked!, locked!",
  moved:
    "door, gate, lid, hatch, flap, barrier, latch, bolt, lock, trap door, curtain, blind, shutter, roller blind, window, box, boxes!, chest, cover, coop, cage, hutch, roof, vent, drawer, mouth, jaw, eye lid, boom, drawbridge, bridge, skylight, bin, cat flap, safe, treasure chest, padlock, locker, jar",
  limb: "arm, flag, sign, head, tail, ear, wing, hand, leg, foot, feet!, finger, handle, lever, camera, panel, mouth, jaw, eyebrow, puppet, marionette, pointer, paddle, crane, gripper, claw, rudder, steering wheel, ramp, bucket, spoon, ladder, mirror, antenna, nozzle, signal, semaphore, joint, catapult",
  tank: "barrel, rain barrel, tank, water tank, fish tank, cistern, bucket, reservoir, well, sump, bowl, pond, bath, bathtub, bath tub, tub, basin, sink, trough, water butt, aquarium, pool, boiler, jug, can, kettle, bottle, toilet, cup, glass, bird bath, drinker, water dish, dish",
  fullness:
    "full, empty, level, overflow, low, fill, filled!, half full, high, run dry, running out!, runs out!, top up!, refill",
  liquid:
    "water, pool, aquarium, fish tank, tank, brew, beer, bath, bath water, pond, tea, coffee, soup, milk, compost, wort, wine, dough, yoghurt, bath tub, oil, paint, hot tub, river, lake, sea, baby bottle, bottle, mash, jam, chocolate, cocoa, syrup, sous vide!, stream, puddle, drink",
  warm: "warm, warmer!, hot, hotter!, cold, colder!, cool, cooler!, freeze, frozen!, temperature, heat, heated!, chilly!, lukewarm!",
  oven: "oven, kiln, grill, barbecue, bbq!, smoker, stove, furnace, pizza oven, forge, camp fire, bonfire, fire pit, wood stove, fire place, chimney, exhaust, soldering iron, solder iron, hot plate, toaster, hob, engine, boiler pipe, crucible",
  hue: "red!, yellow!, amber!, green!, orange!, blue!, white!, purple!, pink!, violet!",
  sit: "sit, sat!, lie, lies!, lying!, stand, step, sleep, tread, jump",
  seat: "chair, seat, sofa, couch, bed, mat, cushion, carpet, stool, bench, saddle, pillow, armchair, door mat, rug, pad, plate, swing, step, stair",
  thing:
    "bag, back pack, bike, bicycle, laptop, box, boxes!, treasure, case, suitcase, phone, desk, locker, wallet, purse, lunch, cookie, tent, guitar, trophy, pumpkin, garden gnome, tool box, scooter, skateboard, stuff!, things!, it!",
  steal:
    "move, touch, steal, stole!, stolen!, take, taken!, took!, lift, carry, grab, nick, pick up!, picks up!, shift",
  food: "cat, dog, fish, pet, hamster, rabbit, chicken, hen, bird, guinea pig, animal, tortoise, turtle, pony, horse, koi!, goldfish!, gecko",
  piece:
    "coin, marble, lap, bottle, car, ball, parcel, piece, item, part, train, turn, revolution, pendulum, swing, screw, brick",
  daytime: "morning, evening, night, noon, midday, midnight, lunch time, bed time, afternoon",
  battery:
    "battery, batteries!, accumulator, power bank, solar panel, solar cell, panel, charger, cell, wind turbine, dynamo, generator, device, socket, appliance, fridge, circuit, project, robot, boat, caravan, camper, car, usb port, power supply, motor",
  electricity:
    "current, voltage, volt, volts!, power, energy, electricity!, watt, watts!, amp, amps!, ampere, charge, yield, consumption!",
  sport:
    "jump, skip, push up, sit up, squat, press up, star jump, pull up, hop, rope skip, step, dance, somersault, cartwheel, pirouette, shake",
  hand: "hand, finger, palm, arm",
  machine:
    "fan, heater, heating, radiator, lamp, light, pump, radio, stereo, tv, television, coffee machine, coffee maker, kettle, device, appliance, machine, humidifier, dehumidifier, boiler, aquarium, charger, computer, printer, speaker, amplifier, air conditioner, freezer, fridge, washing machine, dishwasher, motor, christmas tree, tree, lights!, filter, air pump, heat mat, heat lamp, extractor, hood, projector, router, sewing machine, saw, drill, socket, plug, outlet, power strip, electric blanket, iron, oven, toaster, mixer, blender, fountain",
} as const;
export type ClassName = keyof typeof CLASSES;
