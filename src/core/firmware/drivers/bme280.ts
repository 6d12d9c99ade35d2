import type { Driver } from "../types";

/** BME280: identity register 0xD0 reads 0x60; compensation in integers as the data sheet gives it. */
export const bme280: Driver = {
  id: "bme280",
  order: 20,
  usesI2c: true,
  gives: () => [
    { name: "t_cC", word: "", unit: "C", digits: 2, room: [-4000, 8500] },
    { name: "rh_d", word: "moisture", unit: "%", digits: 1, room: [0, 1000] },
    { name: "p_dhPa", word: "pressure", unit: "hPa", digits: 1, room: [3000, 11_000] },
  ],
  rules: {
    sketch: {
      value: (p, q) => `${p.id}.${{ t_cC: "centiC", rh_d: "deciRh", p_dhPa: "deciHPa" }[q.name]}`,
      fresh: (p) => `${p.id}.fresh`,
    },
    micropython: {
      value: (p, q) => `int(${p.id}.${{ t_cC: "t * 100", rh_d: "rh * 10", p_dhPa: "hpa * 10" }[q.name]})`,
      fresh: (p) => `${p.id}.fresh`,
    },
  },
  sketch: {
    helpers: `struct Bme280 {
  TwoWire &bus;
  uint8_t address;
  uint16_t t1 = 0, p1 = 0;
  int16_t t2 = 0, t3 = 0, p2 = 0, p3 = 0, p4 = 0, p5 = 0, p6 = 0, p7 = 0, p8 = 0, p9 = 0;
  uint8_t h1 = 0, h3 = 0;
  int16_t h2 = 0, h4 = 0, h5 = 0;
  int8_t h6 = 0;
  int16_t centiC = 0;    // hundredths of a degree Celsius
  uint16_t deciRh = 0;   // tenths of a percent relative humidity
  uint16_t deciHPa = 0;  // tenths of a hectopascal
  bool there = false, fresh = false;
  Bme280(TwoWire &b, uint8_t a) : bus(b), address(a) {}

  bool read(uint8_t reg, uint8_t *to, uint8_t n) {
    bus.beginTransmission(address);
    bus.write(reg);
    if (bus.endTransmission() != 0) return false;
    if (bus.requestFrom(address, n) != n) return false;
    while (n--) *to++ = bus.read();
    return true;
  }
  void write(uint8_t reg, uint8_t value) {
    bus.beginTransmission(address);
    bus.write(reg);
    bus.write(value);
    bus.endTransmission();
  }
  uint8_t identity() {
    uint8_t id = 0;
    return read(0xD0, &id, 1) ? id : 0;
  }
  static int16_t s16(const uint8_t *b) { return (int16_t)((uint16_t)b[0] | (uint16_t)b[1] << 8); }
  // Begins until the part answers, then measures: a part that comes late or was gone is taken back.
  void turn() {
    if (!there) there = begin();
    else there = fresh = measure();
  }
  bool begin() {
    uint8_t c[26], h[7];
    fresh = false;
    if (!read(0x88, c, 26) || !read(0xE1, h, 7)) return false;
    t1 = s16(c); t2 = s16(c + 2); t3 = s16(c + 4);
    p1 = s16(c + 6); p2 = s16(c + 8); p3 = s16(c + 10); p4 = s16(c + 12); p5 = s16(c + 14);
    p6 = s16(c + 16); p7 = s16(c + 18); p8 = s16(c + 20); p9 = s16(c + 22);
    h1 = c[25]; h2 = s16(h); h3 = h[2];
    h4 = (int16_t)((int8_t)h[3] * 16 | (h[4] & 0x0F));
    h5 = (int16_t)((int8_t)h[5] * 16 | h[4] >> 4);
    h6 = (int8_t)h[6];
    write(0xF2, 0x01);  // humidity oversampling 1
    write(0xF4, 0x27);  // temperature and pressure oversampling 1, running
    return true;
  }
  bool measure() {
    uint8_t d[8];
    if (!read(0xF7, d, 8)) return false;
    int32_t adcP = (int32_t)d[0] << 12 | (int32_t)d[1] << 4 | d[2] >> 4;
    int32_t adcT = (int32_t)d[3] << 12 | (int32_t)d[4] << 4 | d[5] >> 4;
    int32_t adcH = (int32_t)d[6] << 8 | d[7];
    if (adcT == 0x80000) return false;  // nothing measured yet
    int32_t v1 = (((adcT >> 3) - ((int32_t)t1 << 1)) * (int32_t)t2) >> 11;
    int32_t v2 = (((((adcT >> 4) - (int32_t)t1) * ((adcT >> 4) - (int32_t)t1)) >> 12) * (int32_t)t3) >> 14;
    int32_t fine = v1 + v2;
    centiC = (int16_t)((fine * 5 + 128) >> 8);
    int32_t a = (fine >> 1) - 64000;
    int32_t b = (((a >> 2) * (a >> 2)) >> 11) * (int32_t)p6;
    b += (a * (int32_t)p5) << 1;
    b = (b >> 2) + ((int32_t)p4 << 16);
    a = ((((int32_t)p3 * (((a >> 2) * (a >> 2)) >> 13)) >> 3) + (((int32_t)p2 * a) >> 1)) >> 18;
    a = ((32768 + a) * (int32_t)p1) >> 15;
    if (a != 0) {
      uint32_t p = ((uint32_t)(1048576 - adcP) - (uint32_t)(b >> 12)) * 3125UL;
      p = p < 0x80000000UL ? (p << 1) / (uint32_t)a : (p / (uint32_t)a) * 2;
      int32_t x = ((int32_t)p9 * (int32_t)(((p >> 3) * (p >> 3)) >> 13)) >> 12;
      int32_t y = ((int32_t)(p >> 2) * (int32_t)p8) >> 13;
      deciHPa = (uint16_t)(((int32_t)p + ((x + y + p7) >> 4)) / 10);
    }
    int32_t h = fine - 76800;
    h = ((((adcH << 14) - ((int32_t)h4 << 20) - ((int32_t)h5 * h)) + 16384) >> 15) *
        (((((((h * (int32_t)h6) >> 10) * (((h * (int32_t)h3) >> 11) + 32768)) >> 10) + 2097152) * (int32_t)h2 + 8192) >> 14);
    h -= (((((h >> 15) * (h >> 15)) >> 7) * (int32_t)h1) >> 4);
    if (h < 0) h = 0;
    if (h > 419430400) h = 419430400;
    deciRh = (uint16_t)(((uint32_t)(h >> 12) * 10) >> 10);
    return true;
  }
};`,
    globals: (p) => `static Bme280 ${p.id}(${p.bus}, ${p.address});`,
    bringup: (p) => `{
  uint8_t id = ${p.id}.identity();
  Serial.print(F("YL1 i2c ${p.ref} addr=${p.address} id=0x"));
  Serial.print(id, HEX);
  Serial.print(F(" want=0x60 "));
  verdict(id == 0x60);
  if (id == 0x60 && ${p.id}.begin()) {
    delay(50);
    ${p.id}.measure();
    Serial.print(F("YL1 sensor ${p.ref} t_cC="));
    Serial.print(${p.id}.centiC);
    Serial.print(F(" rh_d="));
    Serial.print(${p.id}.deciRh);
    Serial.print(F(" hPa_d="));
    Serial.print(${p.id}.deciHPa);
    Serial.println(F(" info"));
  }
}`,
    task: (p) => ({ every_ms: 1000, body: `${p.id}.turn();` }),
    show: (p) => `if (${p.id}.fresh) {
  int16_t tenth = ${p.id}.centiC / 10;
  snprintf(line, sizeof line, "%s%d.%d C  %u %%  %u hPa", tenth < 0 ? "-" : "", abs(tenth) / 10, abs(tenth) % 10, ${p.id}.deciRh / 10, ${p.id}.deciHPa / 10);
} else {
  snprintf(line, sizeof line, "${p.label.slice(0, 16)} --");
}`,
  },
  micropython: {
    lib: {
      path: "lib/bme280.py",
      text: `import struct


def _s16(x):
    return x - 65536 if x > 32767 else x


def _s8(x):
    return x - 256 if x > 127 else x


class BME280:
    """Air temperature (C), relative humidity (%) and pressure (hPa)."""

    def __init__(self, i2c, address):
        self.i2c = i2c
        self.address = address
        self.t = 0.0
        self.rh = 0.0
        self.hpa = 0.0
        self.there = False
        self.fresh = False

    def turn(self):
        """Begins until the part answers, then measures: a part that comes late or was gone is taken back."""
        self.fresh = False
        if self.there:
            self.there = False
            self.measure()
            self.there = self.fresh = True
        else:
            self.begin()
            self.there = True

    def identity(self):
        try:
            return self.i2c.readfrom_mem(self.address, 0xD0, 1)[0]
        except OSError:
            return 0

    def begin(self):
        c = self.i2c.readfrom_mem(self.address, 0x88, 26)
        h = self.i2c.readfrom_mem(self.address, 0xE1, 7)
        self.dt = struct.unpack("<Hhh", c[0:6])
        self.dp = struct.unpack("<Hhhhhhhhh", c[6:24])
        self.dh = (
            c[25],
            struct.unpack("<h", h[0:2])[0],
            h[2],
            (_s8(h[3]) << 4) | (h[4] & 15),
            (_s8(h[5]) << 4) | (h[4] >> 4),
            _s8(h[6]),
        )
        self.i2c.writeto_mem(self.address, 0xF2, b"\\x01")
        self.i2c.writeto_mem(self.address, 0xF4, b"\\x27")

    def measure(self):
        d = self.i2c.readfrom_mem(self.address, 0xF7, 8)
        p = d[0] << 12 | d[1] << 4 | d[2] >> 4
        t = d[3] << 12 | d[4] << 4 | d[5] >> 4
        h = d[6] << 8 | d[7]
        t1, t2, t3 = self.dt
        a = (t / 16384 - t1 / 1024) * t2
        b = (t / 131072 - t1 / 8192) ** 2 * t3
        fine = a + b
        self.t = fine / 5120
        p1, p2, p3, p4, p5, p6, p7, p8, p9 = self.dp
        a = fine / 2 - 64000
        b = a * a * p6 / 32768 + a * p5 * 2
        b = b / 4 + p4 * 65536
        a = (p3 * a * a / 524288 + p2 * a) / 524288
        a = (1 + a / 32768) * p1
        if a:
            q = (1048576 - p - b / 4096) * 6250 / a
            self.hpa = (q + (p9 * q * q / 2147483648 + q * p8 / 32768 + p7) / 16) / 100
        h1, h2, h3, h4, h5, h6 = self.dh
        x = fine - 76800
        x = (h - (h4 * 64 + h5 / 16384 * x)) * (
            h2 / 65536 * (1 + h6 / 67108864 * x * (1 + h3 / 67108864 * x))
        )
        x = x * (1 - h1 * x / 524288)
        self.rh = min(100, max(0, x))
`,
    },
    imports: ["from lib.bme280 import BME280"],
    setup: (p) => `${p.id} = BME280(${p.bus}, ${p.address})`,
    bringup: (p) => `found = ${p.id}.identity()
print("YL1 i2c ${p.ref} addr=${p.address} id=0x%02x want=0x60 %s" % (found, judge(found == 0x60)))
if found == 0x60:
    ${p.id}.begin()
    time.sleep_ms(50)
    ${p.id}.measure()
    print("YL1 sensor ${p.ref} t_C=%.2f rh=%.1f hPa=%.1f info" % (${p.id}.t, ${p.id}.rh, ${p.id}.hpa))`,
    task: (p) => ({ every_ms: 1000, body: `${p.id}.turn()` }),
    show: (p) =>
      `"%.1fC %d%% %dhPa" % (${p.id}.t, ${p.id}.rh, ${p.id}.hpa) if ${p.id}.fresh else "${p.label.slice(0, 12)} --"`,
  },
};
