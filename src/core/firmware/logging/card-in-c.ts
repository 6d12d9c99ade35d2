/** Lines at the end of a file of a memory card, FAT16 or FAT32, in C++: a sector in memory, all else stays on the card. */
export const CARD_IN_C = `// A file at the end of which lines are written: LOG.CSV in the top folder of a card with FAT16 or FAT32.
struct Card {
  const SpiPins *spi;
  bool large, found;
  uint8_t perCluster, copies;
  bool wide;
  uint32_t fatAt, fatSectors, rootAt, dataAt, clusters;
  uint16_t rootSectors;
  uint32_t entryAt;
  uint16_t entry;
  uint32_t first, last, size, hint;
};
static uint8_t cardSector[512];
static uint8_t cardByte(const SpiPins *s, uint8_t out) {
#ifdef __AVR__
  volatile uint8_t *sck = portOutputRegister(digitalPinToPort(s->sck));
  volatile uint8_t *mosi = portOutputRegister(digitalPinToPort(s->mosi));
  volatile uint8_t *miso = portInputRegister(digitalPinToPort(s->miso));
  const uint8_t clock = digitalPinToBitMask(s->sck), data = digitalPinToBitMask(s->mosi), back = digitalPinToBitMask(s->miso);
  uint8_t in = 0;
  for (uint8_t bit = 0x80; bit; bit >>= 1) {
    uint8_t was = SREG;
    cli();
    if (out & bit) *mosi |= data;
    else *mosi &= ~data;
    *sck |= clock;
    if (*miso & back) in |= bit;
    *sck &= ~clock;
    SREG = was;
  }
  return in;
#else
  return spiByte(s, out);
#endif
}
static uint8_t cardCommand(const Card *c, uint8_t command, uint32_t at) {
  cardByte(c->spi, 255);
  cardByte(c->spi, 0x40 | command);
  for (int8_t k = 24; k >= 0; k -= 8) cardByte(c->spi, at >> k);
  cardByte(c->spi, 1);
  uint8_t r = 255;
  for (uint8_t i = 0; i < 9 && r == 255; i++) r = cardByte(c->spi, 255);
  return r;
}
static bool cardEnd(const Card *c, bool ok) {
  spiSelect(c->spi, HIGH);
  cardByte(c->spi, 255);
  return ok;
}
static bool cardRead(const Card *c, uint32_t sector) {
  spiSelect(c->spi, LOW);
  if (cardCommand(c, 17, c->large ? sector : sector * 512) != 0) return cardEnd(c, false);
  uint32_t from = millis();
  uint8_t r;
  while ((r = cardByte(c->spi, 255)) == 255)
    if (millis() - from > 200) break;
  if (r != 0xFE) return cardEnd(c, false);
  for (uint16_t i = 0; i < 512; i++) cardSector[i] = cardByte(c->spi, 255);
  cardByte(c->spi, 255);
  cardByte(c->spi, 255);
  return cardEnd(c, true);
}
static bool cardWrite(const Card *c, uint32_t sector) {
  spiSelect(c->spi, LOW);
  if (cardCommand(c, 24, c->large ? sector : sector * 512) != 0) return cardEnd(c, false);
  cardByte(c->spi, 255);
  cardByte(c->spi, 0xFE);
  for (uint16_t i = 0; i < 512; i++) cardByte(c->spi, cardSector[i]);
  cardByte(c->spi, 255);
  cardByte(c->spi, 255);
  if ((cardByte(c->spi, 255) & 31) != 5) return cardEnd(c, false);
  uint32_t from = millis();
  while (cardByte(c->spi, 255) != 255)
    if (millis() - from > 500) return cardEnd(c, false);
  return cardEnd(c, true);
}
static uint16_t card16(uint16_t at) { return cardSector[at] | (uint16_t)cardSector[at + 1] << 8; }
static uint32_t card32(uint16_t at) { return card16(at) | (uint32_t)card16(at + 2) << 16; }
static void cardPut32(uint16_t at, uint32_t v) {
  for (uint8_t i = 0; i < 4; i++) cardSector[at + i] = v >> 8 * i;
}
static uint32_t cardSectorOf(const Card *c, uint32_t cluster) { return c->dataAt + (cluster - 2) * c->perCluster; }
// What comes after a cluster, or what it is set to; 0 when the card fails.
static uint32_t cardNext(const Card *c, uint32_t cluster) {
  if (!cardRead(c, c->fatAt + (c->wide ? cluster >> 7 : cluster >> 8))) return 0;
  return c->wide ? card32((cluster & 127) * 4) & 0x0FFFFFFFUL : card16((cluster & 255) * 2);
}
static bool cardIsEnd(const Card *c, uint32_t v) { return v >= (c->wide ? 0x0FFFFFF8UL : 0xFFF8UL); }
static bool cardSet(const Card *c, uint32_t cluster, uint32_t v) {
  uint32_t sector = c->wide ? cluster >> 7 : cluster >> 8;
  if (!cardRead(c, c->fatAt + sector)) return false;
  if (c->wide) cardPut32((cluster & 127) * 4, (card32((cluster & 127) * 4) & 0xF0000000UL) | v);
  else {
    cardSector[(cluster & 255) * 2] = v;
    cardSector[(cluster & 255) * 2 + 1] = v >> 8;
  }
  for (uint8_t k = 0; k < c->copies; k++)
    if (!cardWrite(c, c->fatAt + k * c->fatSectors + sector)) return false;
  return true;
}
// A free cluster, marked as the end of a file; 0 when the card is full or fails.
static uint32_t cardTake(Card *c) {
  for (uint32_t n = 0; n < c->clusters; n++) {
    uint32_t at = 2 + (c->hint - 2 + n) % c->clusters;
    uint16_t in = c->wide ? (at & 127) * 4 : (at & 255) * 2;
    // A sector of the table is read once.
    if ((n == 0 || in == 0 || at == 2) && !cardRead(c, c->fatAt + (c->wide ? at >> 7 : at >> 8))) return 0;
    if (c->wide ? (card32(in) & 0x0FFFFFFFUL) != 0 : card16(in) != 0) continue;
    c->hint = at + 1 < c->clusters + 2 ? at + 1 : 2;
    return cardSet(c, at, c->wide ? 0x0FFFFFFFUL : 0xFFFFUL) ? at : 0;
  }
  return 0;
}
// Looks through a part of the top folder for the file, and for a place where it could stand.
static bool cardLook(Card *c, uint32_t from, uint16_t n, bool *ends) {
  for (uint16_t k = 0; k < n; k++) {
    if (!cardRead(c, from + k)) return false;
    for (uint16_t at = 0; at < 512; at += 32) {
      uint8_t mark = cardSector[at];
      if ((mark == 0 || mark == 0xE5) && !c->entryAt) {
        c->entryAt = from + k;
        c->entry = at;
      }
      if (mark == 0) {
        *ends = true;
        return true;
      }
      if (memcmp(cardSector + at, "LOG     CSV", 11) || cardSector[at + 11] & 0x18) continue;
      c->found = true;
      c->entryAt = from + k;
      c->entry = at;
      c->first = (uint32_t)(c->wide ? card16(at + 20) : 0) << 16 | card16(at + 26);
      c->size = card32(at + 28);
      return true;
    }
  }
  return true;
}
static bool cardMount(Card *c, bool large) {
  c->large = large;
  c->found = false;
  c->entryAt = c->first = c->last = c->size = 0;
  c->hint = 2;
  if (!cardRead(c, 0) || card16(510) != 0xAA55) return false;
  uint32_t start = 0;
  // A card without partitions begins with a jump.
  if (!((cardSector[0] == 0xEB || cardSector[0] == 0xE9) && card16(11) == 512)) {
    start = card32(446 + 8);
    if (!start || !cardRead(c, start) || card16(510) != 0xAA55) return false;
  }
  c->perCluster = cardSector[13];
  c->copies = cardSector[16];
  if (card16(11) != 512 || !c->perCluster || !c->copies) return false;
  c->rootSectors = (card16(17) + 15) / 16;
  c->fatSectors = card16(22) ? card16(22) : card32(36);
  uint32_t total = card16(19) ? card16(19) : card32(32);
  c->fatAt = start + card16(14);
  c->rootAt = c->fatAt + c->copies * c->fatSectors;
  c->dataAt = c->rootAt + c->rootSectors;
  c->clusters = (total - (c->dataAt - start)) / c->perCluster;
  c->wide = c->clusters >= 65525UL;
  if (c->clusters < 4085) return false;
  uint32_t root = c->wide ? card32(44) : 0;
  bool ends = false;
  if (!c->wide) {
    if (!cardLook(c, c->rootAt, c->rootSectors, &ends)) return false;
  } else
    for (uint32_t at = root; at >= 2 && !cardIsEnd(c, at) && !c->found && !ends; at = cardNext(c, at))
      if (!cardLook(c, cardSectorOf(c, at), c->perCluster, &ends)) return false;
  if (!c->entryAt) return false;
  if (!c->found) {
    // What stands behind the end of a folder's list must be empty as well, and is.
    if (!cardRead(c, c->entryAt)) return false;
    memset(cardSector + c->entry, 0, 32);
    memcpy(cardSector + c->entry, "LOG     CSV", 11);
    cardSector[c->entry + 11] = 0x20;
    // The first of January 1980: it has no clock of its own.
    cardSector[c->entry + 16] = cardSector[c->entry + 24] = 0x21;
    return cardWrite(c, c->entryAt);
  }
  // To the last of its clusters.
  uint32_t left = c->clusters;
  for (uint32_t at = c->first; at >= 2 && !cardIsEnd(c, at); at = cardNext(c, at)) {
    c->last = at;
    if (!left--) return false;
  }
  return true;
}
// Writes text at the end of the file: into its last sector, and into new ones; then its new size.
static bool cardAppend(Card *c, const char *text) {
  const uint32_t whole = (uint32_t)c->perCluster * 512;
  while (*text) {
    uint32_t in = c->size % whole;
    if (in == 0) {
      uint32_t more = cardTake(c);
      if (!more) return false;
      if (c->last && !cardSet(c, c->last, more)) return false;
      if (!c->last) c->first = more;
      c->last = more;
    }
    uint32_t sector = cardSectorOf(c, c->last) + in / 512;
    uint16_t at = in % 512;
    if (at == 0) memset(cardSector, 0, sizeof cardSector);
    else if (!cardRead(c, sector)) return false;
    while (*text && at < 512) {
      cardSector[at++] = *text++;
      c->size++;
    }
    if (!cardWrite(c, sector)) return false;
  }
  if (!cardRead(c, c->entryAt)) return false;
  cardPut32(c->entry + 28, c->size);
  cardSector[c->entry + 26] = c->first;
  cardSector[c->entry + 27] = c->first >> 8;
  if (c->wide) {
    cardSector[c->entry + 20] = c->first >> 16;
    cardSector[c->entry + 21] = c->first >> 24;
  }
  return cardWrite(c, c->entryAt);
}
// The same for text in program memory, a piece at a time.
static bool cardAppendHead(Card *c, const char *text) {
  char piece[33];
  for (;;) {
    uint8_t n = 0;
    while (n < 32 && (piece[n] = pgm_read_byte(text)) != 0) {
      n++;
      text++;
    }
    piece[n] = 0;
    if (n == 0) return true;
    if (!cardAppend(c, piece)) return false;
  }
}
// Adds words, and a number with its point, to a line of some length; its end has room behind that.
static void logText(char *line, const char *text) {
  uint8_t n = strlen(line);
  while (*text && n < 157) line[n++] = *text++;
  line[n] = 0;
}
static void __attribute__((unused)) logNumber(char *line, int32_t value, uint8_t digits) {
  char text[22];
  text[0] = 0;
  lineNumber(text, value, digits, digits);
  logText(line, text);
}`;
