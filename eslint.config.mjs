import ts from "typescript-eslint";
import hooks from "eslint-plugin-react-hooks";

export default ts.config(
  { ignores: [".next/**", "node_modules/**", "build/**", "next-env.d.ts", "data/**"] },
  ...ts.configs.recommended,
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/no-explicit-any": "error",
      "no-console": "off",
    },
  },
  // One set of primitives: what the browser brings for these looks and behaves differently everywhere.
  {
    files: ["src/ui/**/*.tsx", "src/app/**/*.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...[
          ["select", "Select in src/ui/shared"],
          ["option", "Select in src/ui/shared"],
          ["details", "Fold in src/ui/shared"],
          ["dialog", "Sheet in src/ui/shared/dialog"],
          ["progress", "Progress of radix-ui"],
        ].map(([name, use]) => ({
          selector: `JSXOpeningElement[name.name='${name}']`,
          message: `No native <${name}>: use ${use}.`,
        })),
        {
          selector: "JSXAttribute[name.name='type'] Literal[value=/^(checkbox|radio|range|date|time|color)$/]",
          message: "No native box, radio or slider: use Checkbox, Radios or Slider in src/ui/shared.",
        },
        {
          selector: "JSXOpeningElement[name.name=/^[a-z]/] > JSXAttribute[name.name='title']",
          message: "No title attribute: it is not read by touch or keyboard. Use Tip in src/ui/shared.",
        },
        {
          selector:
            "JSXAttribute[name.name='role'] Literal[value=/^(tab|tablist|tabpanel|radio|radiogroup|checkbox|slider|dialog|menu|tooltip)$/]",
          message: "No role by hand that a primitive in src/ui/shared brings.",
        },
      ],
    },
  },
  { files: ["src/core/**"], rules: { "no-console": "error" } },
  { files: ["**/*.cjs"], rules: { "@typescript-eslint/no-require-imports": "off" } },
);
