/** Words that break formats, for tests of every output: each has broken some program of somebody's. */
export const HOSTILE: readonly string[] = [
  "100 %", "%s%s%s%n", "%d", "a%", "??/", "???/ ??> ??!", "\\", "\\n", '"', '";system("x");//', "'; DROP TABLE x; --",
  "*/ int main(void) {", "/* open", "// end", "#include <x>", "`id`", "$(id)", "${x}", "$$", "{{x}}", "{0}", "%(x)s",
  "=1+1", "+1", "-1", "@SUM(A1)", " =1+1", "\t=1+1", "\n=1+1", "a\n=1+1", "a;=1+1", "a\t=1+1", 'a";=1+1', "a|=cmd", "＝1+1", "＋1", "＠x",
  "<script>alert(1)</script>", "<img src=x onerror=y>", "</text>", "]]>", "<!--", "&amp;", "&#60;", "& & &",
  "[x](http://example.org)", "![x](y)", "http://example.org", "www.example.org", "a@example.org", "# head", "- item", "1. one", "> quote",
  "| a | b |", "**bold**", "_em_", "__init__", "~~no~~", "---", "===", "```", "a\r\nb", "a\rb", "a\u2028b", "a\u2029b", "a\u0085b",
  "\u202egnp.exe", "\u2066x\u2069", "\u200fx", "\ufeffx", "\u200b", "\u0000", "\u0007", "\u001b[31mred\u001b[0m", "\u001b]0;title\u0007", "\u009b31m",
  "\ud800", "\udc00x", "\ufffe", "\uffff", "\u{1f4a1}", "🏳️‍🌈", "Ω", "µ", "Ünïcödé", "名前", "اسم", "a".repeat(60), " ", "  x  ", "NUL", "con.txt", "../../x", "C:\\x",
  "constructor", "__proto__", "toString", "None", "True", "int", "while", "0", "-0", "1e999", "NaN",
]; // prettier-ignore
