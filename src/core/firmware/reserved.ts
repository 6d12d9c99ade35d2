/**
 * Names that a part of the project can't have in a program, whatever people call it: words of the languages, what the boards'
 * core and the C library offer, modules and builtins, and what our own programs call their variables. All in lower case: names
 * made from labels are.
 */
const LISTS = {
  /** C++ up to 2017, with its alternative spellings. */
  cpp: `alignas alignof and and_eq asm auto bitand bitor bool break case catch char char16_t char32_t class compl const
    constexpr const_cast continue decltype default delete do double dynamic_cast else enum explicit export extern false float
    for friend goto if inline int long mutable namespace new noexcept not not_eq nullptr operator or or_eq private protected
    public register reinterpret_cast return short signed sizeof static static_assert static_cast struct switch template this
    thread_local throw true try typedef typeid typename union unsigned using virtual void volatile wchar_t while xor xor_eq
    byte word boolean string size_t ssize_t uint8_t uint16_t uint32_t uint64_t int8_t int16_t int32_t int64_t uintptr_t
    intptr_t ptrdiff_t off_t time_t clock_t pid_t timer_t unix linux typeof`,
  /** What the boards' core API and its libraries put into every program. */
  core: `setup loop main init initvariant yield delay millis micros map min max abs round constrain radians degrees sq random
    randomseed tone notone pulsein pulseinlong shiftin shiftout interrupts nointerrupts sei cli bit bitread bitset bitclear
    bitwrite bittoggle lowbyte highbyte makeword makeword analogread analogwrite analogreference analogreadresolution
    digitalread digitalwrite pinmode attachinterrupt detachinterrupt serial serial1 serial2 serial3 serialusb wire wire1 spi
    spi1 twi usb keyboard mouse print println printf isdigit isalpha isspace isupper islower tolower toupper isalphanumeric
    iscontrol isgraph isprintable ispunct iswhitespace ishexadecimaldigit ispunct isascii toascii std input output high low
    f pgm_read_byte eeprom watchdog rp2040 rtc esp adc gpio pwm pio dma uart i2c stdio`,
  /** The C library that comes along with the core. */
  libc: `abort abs acos acosh asin asinh atan atan2 atanh atexit atof atoi atol atoll bsearch calloc cbrt ceil clearerr clock
    copysign cos cosh ctime difftime div environ erf erfc errno exit exp exp2 expm1 fabs fclose fdim feof ferror fflush fgetc
    fgetpos fgets floor fma fmax fmin fmod fopen fprintf fputc fputs fread free freopen frexp fscanf fseek fsetpos ftell
    fwrite gamma getc getchar getenv gets gmtime hypot ilogb index isinf isnan j0 j1 jn kill labs ldexp ldiv lgamma link llabs
    lldiv localtime log log10 log1p log2 logb lrint lround malloc memchr memcmp memcpy memmove memset mktime modf nan nearbyint
    nextafter pause perror pipe pow printf putc putchar puts qsort raise rand random read realloc remove remainder rename
    rewind rindex rint round scalbn scanf select setbuf setvbuf signal signbit significand sin sinh sleep snprintf sprintf
    sqrt square srand srandom sscanf stat stderr stdin stdout strcat strchr strcmp strcpy strcspn strdup strlen strncat
    strncmp strncpy strpbrk strrchr strspn strstr strtod strtok strtol strtoul swab system tan tanh tgamma time times tmpfile
    trunc ungetc unlink usleep va_arg va_end va_list va_start vfprintf vprintf vsnprintf vsprintf wait write y0 y1 yn ltoa itoa
    utoa ultoa dtostrf daylight timezone tzname tzset close open dup exec fork access alarm chdir chown getpid isatty lseek
    nice rmdir setuid symlink sync drem finite scalb matherr`,
  python: `false none true and as assert async await break class continue def del elif else except finally for from global if
    import in is lambda nonlocal not or pass raise return try while with yield match case type`,
  /** Builtins and modules of MicroPython and Python that programs use or may want to. */
  builtins: `abs all any bin bool bytearray bytes callable chr classmethod compile complex delattr dict dir divmod enumerate
    eval exec filter float format frozenset getattr globals hasattr hash help hex id input int isinstance issubclass iter len
    list locals map max memoryview min next object oct open ord pow print property range repr reversed round set setattr
    slice sorted staticmethod str sum super tuple type vars zip self machine time utime pins micropython framebuf
    struct ustruct sys usys os uos gc math cmath json re random errno select socket network bluetooth array binascii
    collections hashlib heapq io ssl zlib asyncio uasyncio rp2 esp esp32 onewire dht ds18x20 lib builtins bringup const
    ticks_ms sleep_ms`,
  /** What our programs call things of their own. */
  ours: `
    _ __attribute__ a address at b begin bits bme280 bus busy_wait_at_least_cycles c cap clear clk_sys clock_get_hz cm
    column columns command d due echo every failed fill fill_rect fine found freq g gpio_put grb h h1 h2 h3 h4 h5 h6 hits
    hpa i i2c0 identity include irq join judge level line mask measure mhz n now ok p p1 p2 p3 p4 p5 p6 p7 p8 p9 page
    adc again asked available bad bcd busask busget busput crc8 deaf fixed idiv imod kept linenumber linetext list look looks me
    need part run s s16be s16le s8 steps turned u16be u16le u24be u8 heartbeat_task report_task heartbeat_next report_next tenth define end k x80000 beat ch count draw echoes echocount echoedges edge enough first from fresh gone heartbeat key keys known light
    crc cs cut data digit digits dot frame got have latch minutes miso mode more mosi most ms out poly sck segments side star
    ticks unit whole alone shown held kept told two seg7 sum8 crc8_low matrix w want field rows cols spi frames sentences one pulses clocked
    shift_in moved name names number off on parts piece poll pulse report rose run said screen seen since steady select self summary tell tells test
    rules_busy rule_busy woke nap rang lightsleep converter timer timer0_millis slept awake held second wdt_reset sleep_mode
    set_sleep_mode esp_light_sleep_start esp_sleep_enable_timer_wakeup
    pagenumber pagesay pagehtml pagejson page_server page_who page_asked page_since page_open page_task page_next wifi wl_connected
    branches busbranch busshut back get glyph is_new no_number font textline textpattern textnumber textat screen echoof card16 card32 cards page_readings sent wire channel fell gap hears take infrared onedge onedges onedgecount edgescame watchedges spifill spiselect bytescame softspi soft idle last late any
    tests there timed told turn wait was watch
    cluster clusters copies ends entry hint large left mark root sector size total wide
    pairs read32 right span sound soundspan soundget
    passed pin port r reg restore_interrupts rh row s16 save_and_disable_interrupts scan scl score sda show sreg ssd1306
    start steps strip t t1 t2 t3 task text there ticks_add ticks_diff time_us to trig unused us used v1 v2 value verdict x
    y`,
} as const;

const RESERVED: ReadonlySet<string> = new Set(
  Object.values(LISTS).flatMap((words) => words.split(/\s+/).map((w) => w.toLowerCase())),
);

/** Whether a name made from a label would mean something else in a program already. */
export const isReserved = (name: string): boolean =>
  RESERVED.has(name) ||
  /^(u?int|float)\d+_t$/.test(name) ||
  /^(test_\d+|(of|soft)_\w+|rules?\d*(_\w+)?|i2c\d)$/.test(name);
