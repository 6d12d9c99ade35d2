/*
 * A small bench around a simulated ATmega328P: prints the serial port, answers as I2C parts, echoes a distance pulse, holds
 * a button, and reports every pin that the program toggles. Arguments: firmware.elf seconds [part ...], where a part is
 *   i2c:ADDRESS            acknowledges everything, reads zeros (a display)
 *   bme280:ADDRESS         register file with identity 0x60 and the worked example of the data sheet
 *   echo:TRIG:ECHO:CM      ports as PB0 etc.; answers a pulse on TRIG with CM * 58 us on ECHO
 *   hold:PIN:LEVEL         drives an input pin
 *   later:PIN:MS:LEVEL     drives it from then on
 *   key:MS:TEXT            types into the serial port
 *   pipe:ADDRESS           is answered by whoever runs this: lines "?S address read us", "?W address byte us", "?R", "?P" on stderr
 *   wire:PIN[:up]          is asked about by "?N": whoever runs this hears of every change that the program makes there, and
 *                          answers with what the part does; up: a resistor pulls it up
 *   late:ADDRESS:MS        the I2C part at ADDRESS answers from then on
 *   gone:ADDRESS:MS        ... and not any more from then on
 */
#include <simavr/avr_adc.h>
#include <simavr/avr_ioport.h>
#include <simavr/avr_twi.h>
#include <simavr/avr_uart.h>
#include <simavr/sim_avr.h>
#include <simavr/sim_elf.h>
#include <simavr/sim_time.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

struct part {
  uint8_t address, selected, reg, got_reg;
  uint8_t regs[256];
  avr_irq_t *in;
  avr_cycle_count_t from, until;
};
static struct part parts[8];
static int part_count;
static unsigned toggles[3][8];
static unsigned long i2c_bytes;
static avr_t *avr;
/* Cycles a microsecond. */
static unsigned mega = 16;
static struct { int on; avr_irq_t *echo; uint32_t us; int was; } echo_part;

static void on_uart(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq; (void)param;
  putchar((int)value);
  fflush(stdout);
}

static void on_pin(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)value;
  unsigned port = (unsigned)(uintptr_t)param;
  toggles[port][irq->irq]++;
}

static avr_cycle_count_t echo_fall(avr_t *a, avr_cycle_count_t when, void *param) {
  (void)a; (void)when; (void)param;
  avr_raise_irq(echo_part.echo, 0);
  return 0;
}
static avr_cycle_count_t echo_rise(avr_t *a, avr_cycle_count_t when, void *param) {
  (void)when; (void)param;
  avr_raise_irq(echo_part.echo, 1);
  avr_cycle_timer_register_usec(a, echo_part.us, echo_fall, NULL);
  return 0;
}
static void on_trigger(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq; (void)param;
  if (echo_part.was && !value) avr_cycle_timer_register_usec(avr, 450, echo_rise, NULL);
  echo_part.was = (int)value;
}

static void on_twi(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq;
  struct part *p = param;
  avr_twi_msg_irq_t v;
  v.u.v = value;
  if (v.u.twi.msg & TWI_COND_STOP) p->selected = 0;
  if (v.u.twi.msg & TWI_COND_START) {
    p->selected = 0;
    if ((v.u.twi.addr >> 1) == p->address && avr->cycle >= p->from && (!p->until || avr->cycle < p->until)) {
      p->selected = v.u.twi.addr;
      if (!(v.u.twi.addr & 1)) p->got_reg = 0;
      avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_ACK, p->selected, 1));
    }
  }
  if (!p->selected) return;
  if (v.u.twi.msg & TWI_COND_WRITE) {
    i2c_bytes++;
    avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_ACK, p->selected, 1));
    if (!p->got_reg) { p->reg = v.u.twi.data; p->got_reg = 1; }
    else p->regs[p->reg++] = v.u.twi.data;
  }
  if (v.u.twi.msg & TWI_COND_READ) {
    uint8_t data = p->regs[p->reg++];
    avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_READ, p->selected, data));
  }
}

/* One question, one answer: a number. Messages are collected: a part hears of a write when it ends. */
static unsigned piped(const char *what, unsigned a, unsigned b) {
  fprintf(stderr, "?%s %u %u %llu\n", what, a, b, (unsigned long long)(avr->cycle / mega));
  fflush(stderr);
  unsigned answer = 0;
  if (scanf("%u", &answer) != 1) exit(3);
  return answer;
}
static void on_piped(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq;
  struct part *p = param;
  avr_twi_msg_irq_t v;
  v.u.v = value;
  if (v.u.twi.msg & TWI_COND_STOP) {
    if (p->selected) piped("P", p->address, 0);
    p->selected = 0;
  }
  if (v.u.twi.msg & TWI_COND_START) {
    if (p->selected) piped("P", p->address, 0);
    p->selected = 0;
    if ((v.u.twi.addr >> 1) == p->address && piped("S", p->address, v.u.twi.addr & 1)) {
      p->selected = v.u.twi.addr;
      avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_ACK, p->selected, 1));
    }
  }
  if (!p->selected) return;
  if (v.u.twi.msg & TWI_COND_WRITE && piped("W", p->address, v.u.twi.data))
    avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_ACK, p->selected, 1));
  if (v.u.twi.msg & TWI_COND_READ)
    avr_raise_irq(p->in, avr_twi_irq_msg(TWI_COND_READ, p->selected, piped("R", p->address, 0)));
}
static void add_piped(uint8_t address) {
  struct part *p = &parts[part_count++];
  p->address = address;
  p->in = avr_alloc_irq(&avr->irq_pool, 0, 1, NULL);
  avr_connect_irq(p->in, avr_io_getirq(avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_INPUT));
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_OUTPUT), on_piped, p);
}

static void add_i2c(uint8_t address, int bme) {
  struct part *p = &parts[part_count++];
  p->address = address;
  if (bme) {
    /* Trimming words and raw readings: 25.08 C and 1006.5 hPa are the worked example for these values. */
    static const uint16_t trim[12] = {27504, 26435, (uint16_t)-1000, 36477, (uint16_t)-10685, 3024,
                                      2855, 140, (uint16_t)-7, 15500, (uint16_t)-14600, 6000};
    for (int i = 0; i < 12; i++) { p->regs[0x88 + 2 * i] = trim[i] & 255; p->regs[0x89 + 2 * i] = trim[i] >> 8; }
    p->regs[0xA1] = 75; p->regs[0xE1] = 0x6A; p->regs[0xE2] = 0x01; p->regs[0xE3] = 0;
    p->regs[0xE4] = 0x13; p->regs[0xE5] = 0x20; p->regs[0xE6] = 0x03; p->regs[0xE7] = 30;
    p->regs[0xD0] = 0x60;
    uint32_t raw_p = 415148, raw_t = 519888, raw_h = 28000;
    p->regs[0xF7] = raw_p >> 12; p->regs[0xF8] = raw_p >> 4; p->regs[0xF9] = raw_p << 4;
    p->regs[0xFA] = raw_t >> 12; p->regs[0xFB] = raw_t >> 4; p->regs[0xFC] = raw_t << 4;
    p->regs[0xFD] = raw_h >> 8; p->regs[0xFE] = raw_h;
  }
  p->in = avr_alloc_irq(&avr->irq_pool, 0, 1, NULL);
  avr_connect_irq(p->in, avr_io_getirq(avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_INPUT));
  avr_irq_register_notify(avr_io_getirq(avr, AVR_IOCTL_TWI_GETIRQ(0), TWI_IRQ_OUTPUT), on_twi, p);
}

static avr_irq_t *pin_irq(const char *name) {
  return avr_io_getirq(avr, AVR_IOCTL_IOPORT_GETIRQ(name[1]), name[2] - '0');
}

/* What holds a pin from outside, stronger than the chip's own pull-up. The simulator keeps one word for a whole port. */
static void hold(const char *name, unsigned level) {
  static unsigned masks[8], values[8];
  unsigned port = (unsigned)(name[1] - 'A') & 7, bit = 1u << (name[2] - '0');
  masks[port] |= bit;
  values[port] = level ? values[port] | bit : values[port] & ~bit;
  avr_ioport_external_t e = {.name = (unsigned)name[1], .mask = masks[port], .value = values[port]};
  avr_ioctl(avr, AVR_IOCTL_IOPORT_SET_EXTERNAL(name[1]), &e);
}
static void drive(const char *name, unsigned level) {
  hold(name, level);
  avr_raise_irq(pin_irq(name), level);
}
/* Lines on which a part of the bench hangs. An answer is how many things happen, and for each: which line (100 and more are
 * converter channels), its level (or millivolts; -1: be asked again), and after how many microseconds. */
struct wire { char name[4]; avr_irq_t *irq; int up, mine; uint32_t level; };
static struct wire wires[24];
static int wire_count;
struct later { avr_cycle_count_t at; int line, level; };
/* In the order of time: the simulator has room for few timers, so the next one alone is set. */
static struct later laters[256];
static int later_count;
static unsigned long long tenths(void) { return (unsigned long long)(avr->cycle * 10 / mega); }
static void wire_answer(void);
static void wire_set(int line, int level) {
  if (line >= 100) {
    avr_raise_irq(avr_io_getirq(avr, AVR_IOCTL_ADC_GETIRQ, line - 100), level);
    return;
  }
  struct wire *w = &wires[line];
  hold(w->name, (unsigned)level);
  /* A pin that the program drives stays as it is driven. */
  avr_ioport_state_t s;
  avr_ioctl(avr, AVR_IOCTL_IOPORT_GETSTATE(w->name[1]), &s);
  if (s.ddr >> (w->name[2] - '0') & 1) return;
  w->mine = 1;
  avr_raise_irq(w->irq, (uint32_t)level);
  w->mine = 0;
  w->level = (uint32_t)level;
}
static avr_cycle_count_t on_later(avr_t *a, avr_cycle_count_t when, void *param) {
  (void)when; (void)param;
  while (later_count && laters[0].at <= a->cycle) {
    struct later l = laters[0];
    memmove(laters, laters + 1, (size_t)--later_count * sizeof *laters);
    if (l.level == -1) {
      fprintf(stderr, "?L %d %u %llu\n", l.line, wires[l.line].level, tenths());
      fflush(stderr);
      wire_answer();
    } else wire_set(l.line, l.level);
  }
  if (later_count) avr_cycle_timer_register(a, laters[0].at - a->cycle, on_later, NULL);
  return 0;
}
static void wire_answer(void) {
  int n = 0;
  if (scanf("%d", &n) != 1) exit(3);
  for (int i = 0; i < n; i++) {
    int line, level, us;
    if (scanf("%d %d %d", &line, &level, &us) != 3) exit(3);
    if (us == 0 && level != -1) {
      wire_set(line, level);
      continue;
    }
    if (later_count == 256) exit(4);
    avr_cycle_count_t at = avr->cycle + (avr_cycle_count_t)us * mega;
    int k = later_count++;
    for (; k > 0 && laters[k - 1].at > at; k--) laters[k] = laters[k - 1];
    laters[k] = (struct later){at, line, level};
  }
  if (later_count)
    avr_cycle_timer_register(avr, laters[0].at > avr->cycle ? laters[0].at - avr->cycle : 1, on_later, NULL);
}
static void on_wire(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq;
  struct wire *w = param;
  if (w->mine || w->level == (value & 1)) return;
  w->level = value & 1;
  fprintf(stderr, "?N %d %u %llu\n", (int)(w - wires), value & 1, tenths());
  fflush(stderr);
  wire_answer();
}
static void add_wire(const char *name, int up) {
  struct wire *w = &wires[wire_count++];
  strcpy(w->name, name);
  w->irq = avr_io_getirq(avr, AVR_IOCTL_IOPORT_GETIRQ(name[1]), name[2] - '0');
  w->up = up;
  if (up) wire_set((int)(w - wires), 1);
  avr_irq_register_notify(w->irq, on_wire, w);
}

/* What one pin does, cycle by cycle. */
static struct { unsigned level; unsigned long long at; } edges[6000];
static int edge_count;
static void on_scope(struct avr_irq_t *irq, uint32_t value, void *param) {
  (void)irq; (void)param;
  value &= 1;
  if (edge_count && edges[edge_count - 1].level == value) return;
  if (edge_count < 6000) {
    edges[edge_count].level = value;
    edges[edge_count++].at = avr->cycle;
  }
}

struct event { char pin[4]; unsigned level; char text[40]; };
static struct event events[16];
static int event_count;
static avr_cycle_count_t on_event(avr_t *a, avr_cycle_count_t when, void *param) {
  (void)when;
  struct event *e = param;
  if (e->pin[0]) {
    drive(e->pin, e->level);
    return 0;
  }
  /* A tilde stands for Enter. */
  avr_raise_irq(avr_io_getirq(a, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_INPUT), e->text[0] == '~' ? '\n' : e->text[0]);
  memmove(e->text, e->text + 1, sizeof e->text - 1);
  /* A character every two milliseconds: slower than the console's line. */
  return e->text[0] ? when + 2000 * mega : 0;
}
/* Asleep the chip's time goes on at once, not at the pace of this machine. */
static avr_cycle_count_t asleep;
static void no_wait(avr_t *a, avr_cycle_count_t cycles) { (void)a; (void)cycles; }

int main(int argc, char **argv) {
  if (argc < 3) return 2;
  elf_firmware_t f;
  memset(&f, 0, sizeof f);
  if (elf_read_firmware(argv[1], &f)) return 2;
  const char *mcu = getenv("MCU"), *hertz = getenv("F_CPU");
  avr = avr_make_mcu_by_name(mcu ? mcu : "atmega328p");
  if (!avr) return 2;
  avr_init(avr);
  f.frequency = hertz ? strtoul(hertz, NULL, 10) : 16000000;
  mega = f.frequency / 1000000;
  avr_load_firmware(avr, &f);
  avr->log = LOG_ERROR;
  uint32_t flags = 0;
  avr_ioctl(avr, AVR_IOCTL_UART_GET_FLAGS('0'), &flags);
  flags &= ~AVR_UART_FLAG_STDIO;
  avr_ioctl(avr, AVR_IOCTL_UART_SET_FLAGS('0'), &flags);
  avr_irq_t *serial = avr_io_getirq(avr, AVR_IOCTL_UART_GETIRQ('0'), UART_IRQ_OUTPUT);
  if (serial) avr_irq_register_notify(serial, on_uart, NULL);
  for (unsigned port = 0; port < 3; port++)
    for (unsigned bit = 0; bit < 8; bit++) {
      avr_irq_t *irq = avr_io_getirq(avr, AVR_IOCTL_IOPORT_GETIRQ('B' + port), bit);
      if (irq) avr_irq_register_notify(irq, on_pin, (void *)(uintptr_t)port);
    }
  for (int i = 3; i < argc; i++) {
    unsigned address, level, cm;
    char a[8], b[8];
    if (sscanf(argv[i], "i2c:%x", &address) == 1) add_i2c(address, 0);
    else if (sscanf(argv[i], "pipe:%x", &address) == 1) add_piped(address);
    else if (sscanf(argv[i], "bme280:%x", &address) == 1) add_i2c(address, 1);
    else if (sscanf(argv[i], "wire:%3[^:]:%7s", a, b) == 2) add_wire(a, b[0] == 'u');
    else if (sscanf(argv[i], "later:%3[^:]:%u:%u", a, &cm, &level) == 3) {
      struct event *e = &events[event_count++];
      strcpy(e->pin, a);
      e->level = level;
      avr_cycle_timer_register(avr, (avr_cycle_count_t)cm * 1000 * mega, on_event, e);
    } else if (sscanf(argv[i], "key:%u:%39s", &cm, events[event_count].text) == 2) {
      avr_cycle_timer_register(avr, (avr_cycle_count_t)cm * 1000 * mega, on_event, &events[event_count++]);
    } else if (sscanf(argv[i], "late:%x:%u", &address, &cm) == 2 || sscanf(argv[i], "gone:%x:%u", &address, &cm) == 2) {
      for (int k = 0; k < part_count; k++)
        if (parts[k].address == address) *(argv[i][0] == 'l' ? &parts[k].from : &parts[k].until) = (avr_cycle_count_t)cm * 1000 * mega;
    } else if (sscanf(argv[i], "echo:%3[^:]:%3[^:]:%u", a, b, &cm) == 3) {
      echo_part.us = cm * 58;
      echo_part.echo = pin_irq(b);
      avr_irq_register_notify(pin_irq(a), on_trigger, NULL);
    } else if (sscanf(argv[i], "scope:%3[^:]", a) == 1) {
      avr_irq_register_notify(pin_irq(a), on_scope, NULL);
    } else if (sscanf(argv[i], "hold:%3[^:]:%u", a, &level) == 2) {
      drive(a, level);
    } else return 2;
  }
  avr->avcc = avr->vcc = avr->aref = 5000;
  if (wire_count) {
    fprintf(stderr, "?B 0 0 0\n");
    fflush(stderr);
    wire_answer();
  }
  avr->sleep = no_wait;
  avr_cycle_count_t end = (avr_cycle_count_t)(atof(argv[2]) * f.frequency);
  while (avr->cycle < end) {
    avr_cycle_count_t from = avr->cycle;
    int state = avr_run(avr);
    if (state == cpu_Sleeping) asleep += avr->cycle - from;
    if (state == cpu_Done || state == cpu_Crashed) { printf("\nCRASHED\n"); return 1; }
  }
  putchar('\n');
  for (unsigned port = 0; port < 3; port++)
    for (unsigned bit = 0; bit < 8; bit++)
      if (toggles[port][bit]) printf("TOGGLES P%c%u %u\n", 'B' + port, bit, toggles[port][bit]);
  for (int k = 0; k < edge_count; k++) printf("EDGE %u %llu\n", edges[k].level, edges[k].at);
  printf("I2C_BYTES %lu\n", i2c_bytes);
  printf("ASLEEP %llu\n", (unsigned long long)(asleep * 1000 / f.frequency));
  return 0;
}
