/** A word of the field, how else it is written, and what it means in one line that a twelve-year-old follows. */
export interface Term {
  term: string;
  /** Other spellings and forms that mean the same; matched as whole words. */
  also?: string[];
  gloss: string;
}

/** The one glossary of the app: screen, print and search read it. Adding a word is a line here. */
export const TERMS: readonly Term[] = [
  // Electricity
  {
    term: "voltage",
    also: ["volt", "volts"],
    gloss: "How hard electricity is pushed, in volts (V); always measured between two points.",
  },
  {
    term: "current",
    gloss: "How much electricity flows past, in amperes (A); a lamp takes about 0.01 A, a motor 0.5 A and more.",
  },
  { term: "resistance", gloss: "How much something holds current back, in ohms (Ω): volts divided by amperes." },
  { term: "power", gloss: "What is turned into heat, light or motion each second, in watts (W): volts times amperes." },
  {
    term: "ground",
    also: ["grounds", "GND"],
    gloss: "The point that all voltages are measured against; everything that talks must share it.",
  },
  {
    term: "short circuit",
    gloss: "Two points joined that must not be, so that far too much current flows.",
  },
  { term: "polarity", gloss: "Which end is plus and which is minus; turned round, some parts break." },
  { term: "series", gloss: "One after the other, so that the same current goes through all." },
  { term: "parallel", gloss: "Side by side between the same two points, so that all have the same voltage." },
  {
    term: "voltage drop",
    also: ["drop", "drops"],
    gloss: "What is lost on the way through a wire or a part: the far end has fewer volts.",
  },
  {
    term: "voltage divider",
    also: ["divider"],
    gloss: "Two resistors in a row; between them stands a fixed share of the voltage.",
  },
  { term: "tolerance", gloss: "How far a part may be off from what is printed on it, in percent." },
  { term: "ripple", gloss: "Small, quick ups and downs on a supply that should be still." },
  {
    term: "inrush current",
    also: ["inrush"],
    gloss: "The gulp that a part takes in the first moment, many times what it needs later.",
  },
  {
    term: "leakage current",
    also: ["leakage", "leaks"],
    gloss: "The little that flows where none should: through something that is off.",
  },
  { term: "duty cycle", also: ["duty"], gloss: "The share of time that something is on." },
  { term: "frequency", gloss: "How often something repeats each second, in hertz (Hz)." },
  { term: "impedance", gloss: "Resistance for changing currents; it depends on how fast they change." },
  { term: "AWG", gloss: "How thick a wire is; the larger the number, the thinner the wire." },
  {
    term: "absolute maximum",
    also: ["absolute maximum rating"],
    gloss: "The limit beyond which a part may break at once; designs stay well below it.",
  },
  // Supplies
  { term: "supply", also: ["supplies"], gloss: "Where power comes from, or the pin where a part takes it." },
  {
    term: "rail",
    also: ["rails"],
    gloss: "A supply or ground that many parts share; on a breadboard, the long rows along its sides.",
  },
  { term: "regulator", also: ["regulators"], gloss: "A part that makes a steady lower voltage from a higher one." },
  {
    term: "LDO",
    also: ["low-dropout"],
    gloss:
      "A regulator that still works when its input is only a little above its output; what is too much becomes heat.",
  },
  { term: "dropout", gloss: "How much higher a regulator's input must be than its output." },
  { term: "buck converter", also: ["buck"], gloss: "It makes a lower voltage by switching quickly, with little heat." },
  {
    term: "boost converter",
    also: ["boost"],
    gloss: "It makes a higher voltage from a lower one, and takes more current for it.",
  },
  {
    term: "brownout",
    also: ["browns out", "brown-out"],
    gloss: "The supply sags so far that the chip starts again or does strange things.",
  },
  {
    term: "decoupling capacitor",
    also: ["decoupling"],
    gloss: "A small capacitor right at a chip's supply pins: a sip of current for the quick moments.",
  },
  {
    term: "bulk capacitor",
    also: ["bulk"],
    gloss: "A large capacitor that helps a supply through gulps of motors and lights.",
  },
  {
    term: "back-feeding",
    also: ["back-feed", "backfeeding", "feeds back"],
    gloss: "Current that flows into a supply from its outlet, or into a part through its signal pins.",
  },
  { term: "reverse polarity", gloss: "Plus and minus exchanged: many parts do not survive it." },
  { term: "fuse", also: ["polyfuse"], gloss: "A weak link that opens before the wire gets hot." },
  {
    term: "capacity",
    also: ["mAh"],
    gloss: "How much charge a battery holds; 1000 mAh give 100 mA for about ten hours.",
  },
  { term: "quiescent current", also: ["quiescent"], gloss: "What a part takes while it does nothing." },
  {
    term: "deep sleep",
    gloss: "The board switches nearly everything off and wakes by a clock or a pin: batteries last for months.",
  },
  // Pins
  { term: "GPIO", gloss: "A pin of the chip that the program uses as it likes: to read or to drive." },
  { term: "input", also: ["inputs"], gloss: "A pin that reads; hardly any current flows into it." },
  {
    term: "output",
    also: ["outputs"],
    gloss: "A pin that drives a line high or low; two outputs must never fight on one line.",
  },
  {
    term: "high-impedance",
    also: ["floating", "floats", "open input"],
    gloss: "Nothing drives the line, so it reads by chance: it needs a pull-up or pull-down.",
  },
  {
    term: "logic level",
    also: ["logic levels", "levels"],
    gloss: "Which volts count as high and which as low; both sides must agree.",
  },
  {
    term: "threshold",
    also: ["thresholds"],
    gloss: "The voltage from which an input reads high, or below which it reads low.",
  },
  {
    term: "noise margin",
    also: ["margin", "margins"],
    gloss: "How far a signal is on the safe side of the threshold.",
  },
  { term: "5 V tolerant", also: ["5-V-tolerant", "tolerant"], gloss: "A pin of a 3.3 V chip that survives 5 V." },
  {
    term: "pull-up",
    also: ["pull-ups", "pullup", "pulled up"],
    gloss: "A resistor to the supply that keeps a line high while nobody drives it.",
  },
  {
    term: "pull-down",
    also: ["pull-downs", "pulldown", "pulled down"],
    gloss: "A resistor to ground that keeps a line low while nobody drives it.",
  },
  {
    term: "open drain",
    also: ["open-drain", "open collector", "open-collector"],
    gloss:
      "An output that can only pull low and lets go for high; a pull-up does the rest, so several can share a line.",
  },
  { term: "push-pull", gloss: "An output that drives both high and low." },
  {
    term: "strapping pin",
    also: ["strapping", "strap", "straps"],
    gloss:
      "A pin that the chip reads once at the start to choose how it boots; what hangs on it must not disturb that.",
  },
  { term: "bootloader", gloss: "A little program in the chip that takes in your program over USB or serial." },
  { term: "reset", gloss: "A pin that starts the chip anew while it is held low." },
  { term: "interrupt", also: ["interrupts"], gloss: "The chip drops what it does at once when a pin or timer calls." },
  {
    term: "timer",
    also: ["timers"],
    gloss: "A counter in the chip that runs by itself; PWM, servos and tones need one each.",
  },
  {
    term: "PWM",
    also: ["pulse width modulation"],
    gloss: "Switching on and off so fast that it looks like half as bright or runs half as fast.",
  },
  {
    term: "ADC",
    also: ["analogue input"],
    gloss: "It turns a voltage into a number that the program can read.",
  },
  { term: "DAC", gloss: "It turns a number into a voltage." },
  { term: "resolution", gloss: "The smallest step that a reading can show." },
  {
    term: "debouncing",
    also: ["debounce", "bounces", "bounce"],
    gloss:
      "A button closes and opens several times in a few thousandths of a second; the program waits until it is still.",
  },
  { term: "header", also: ["headers"], gloss: "A row of pins or sockets at the edge of a board, 2.54 mm apart." },
  { term: "pitch", gloss: "How far pins are apart, from middle to middle." },
  // Buses
  { term: "bus", also: ["buses"], gloss: "Lines that several parts share to talk to the board." },
  {
    term: "I2C",
    also: ["I²C"],
    gloss: "A bus of two lines, data and clock, for many parts; each has an address of its own.",
  },
  { term: "SDA", gloss: "The data line of an I2C bus." },
  { term: "SCL", gloss: "The clock line of an I2C bus." },
  {
    term: "address",
    also: ["addresses"],
    gloss: "The number by which one part on a shared bus is called; two with the same number answer both.",
  },
  { term: "bus capacitance", gloss: "Wires and pins hold a little charge; too much of it makes a bus slow." },
  { term: "rise time", gloss: "How long a line takes from low to high; long wires and weak pull-ups make it slow." },
  { term: "SPI", gloss: "A fast bus of three shared lines, and one select line for each part." },
  { term: "MOSI", gloss: "The SPI line on which the board talks and the parts listen." },
  { term: "MISO", gloss: "The SPI line on which one part answers the board." },
  { term: "SCK", also: ["SCLK"], gloss: "The clock line of an SPI bus." },
  {
    term: "chip select",
    also: ["CS", "select line"],
    gloss: "The line that tells one part on the SPI bus that it is meant; low means listen.",
  },
  {
    term: "UART",
    also: ["serial port", "serial"],
    gloss: "Two lines, one each way, between two parts; what one sends (TX) the other receives (RX).",
  },
  { term: "TX", gloss: "Where a part sends; it goes to the other one's RX." },
  { term: "RX", gloss: "Where a part receives; it comes from the other one's TX." },
  {
    term: "baud rate",
    also: ["baud"],
    gloss: "How many bits a second a serial line carries; both sides must use the same.",
  },
  {
    term: "1-Wire",
    also: ["one-wire"],
    gloss: "One data line for many sensors, each with a number of its own from the factory.",
  },
  { term: "RS-485", gloss: "A pair of lines that carries serial data over hundreds of metres." },
  {
    term: "termination",
    also: ["terminator"],
    gloss: "A resistor at each end of a long line, so that signals do not come back as an echo.",
  },
  {
    term: "multiplexer",
    also: ["multiplexers"],
    gloss: "A switch that joins one of many lines to one, as the program says.",
  },
  {
    term: "shift register",
    also: ["shift registers"],
    gloss: "A chip that takes bits one after the other and shows them side by side: many outputs from three pins.",
  },
  { term: "port expander", also: ["expander", "expanders"], gloss: "A chip on a bus that brings more pins." },
  {
    term: "level shifter",
    also: ["level shifters", "shifter"],
    gloss: "It passes signals between parts of different voltages, such as 3.3 V and 5 V.",
  },
  { term: "buffer", also: ["buffers"], gloss: "It repeats a signal with more strength, or with another voltage." },
  {
    term: "isolation",
    also: ["isolated", "isolator", "galvanic isolation"],
    gloss: "Signals pass by light or magnetism, and no current: both sides have a ground of their own.",
  },
  // Parts
  {
    term: "resistor",
    also: ["resistors"],
    gloss: "It limits the current; the coloured rings or the print tell its ohms.",
  },
  { term: "capacitor", also: ["capacitors"], gloss: "It stores a little charge and gives it back at once." },
  {
    term: "electrolytic capacitor",
    also: ["electrolytic"],
    gloss: "A large capacitor with a plus and a minus; turned round it can burst.",
  },
  {
    term: "diode",
    also: ["diodes"],
    gloss: "It lets current through one way only; the ring is at the end where it comes out.",
  },
  {
    term: "flyback diode",
    also: ["flyback"],
    gloss: "A diode across a motor or coil that catches the kick when it is switched off.",
  },
  {
    term: "LED",
    also: ["LEDs"],
    gloss: "A light that works one way round only and needs a resistor; the long leg is plus.",
  },
  { term: "forward voltage", gloss: "What an LED or diode keeps for itself: about 2 V for red, 3 V for blue." },
  {
    term: "common cathode",
    also: ["common anode"],
    gloss: "Several lights share one leg: minus (cathode) or plus (anode).",
  },
  {
    term: "transistor",
    also: ["transistors"],
    gloss: "A switch that a small current or voltage works: pins drive motors and lamps through it.",
  },
  {
    term: "MOSFET",
    also: ["MOSFETs"],
    gloss: "A transistor that a voltage works; good for large currents with little heat.",
  },
  { term: "gate", gloss: "The pin of a MOSFET that switches it; it must never be left open." },
  { term: "relay", also: ["relays"], gloss: "A switch worked by a coil: both circuits are apart from each other." },
  {
    term: "driver",
    also: ["drivers"],
    gloss: "A chip or transistor that gives a load more current than a pin may, or the code that talks to a part.",
  },
  { term: "H-bridge", gloss: "Four switches round a motor, so that it can turn both ways." },
  { term: "servo", also: ["servos"], gloss: "A motor that turns to an angle and stays there; pulses say which." },
  { term: "stepper", also: ["stepper motor"], gloss: "A motor that turns in small, exact steps." },
  { term: "potentiometer", gloss: "A knob: a resistor with a sliding contact, so that a voltage can be dialled." },
  {
    term: "breakout",
    also: ["module", "modules"],
    gloss: "A small board that carries one chip, with pins that fit a breadboard.",
  },
  {
    term: "breadboard",
    also: ["breadboards"],
    gloss:
      "A board with holes in which parts and wires are plugged, without solder: five holes of a row belong together.",
  },
  { term: "jumper", also: ["jumpers"], gloss: "A short wire with a pin or socket at each end." },
  {
    term: "stripboard",
    also: ["perfboard"],
    gloss: "A board with holes for soldering; on stripboard, strips of copper join the holes of a row.",
  },
  {
    term: "heat-shrink tube",
    also: ["heat-shrink"],
    gloss: "A sleeve that shrinks when it is warmed, and covers a bare joint.",
  },
  // Program and bench
  { term: "firmware", gloss: "The program that runs on the board." },
  { term: "bring-up", gloss: "The first run: each part proves that it is there, one line each." },
  {
    term: "continuity",
    also: ["beep", "beeps"],
    gloss: "Whether two points are joined: the meter beeps when they are.",
  },
  {
    term: "multimeter",
    also: ["meter"],
    gloss: "It measures volts, ohms and amperes, and beeps when two points are joined.",
  },
  { term: "net", also: ["nets"], gloss: "All points that are joined with each other, however many wires it takes." },
  { term: "worst case", gloss: "All values at their unlucky end at once; what holds then holds always." },
];
