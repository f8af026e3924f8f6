import { createCache, extractStyle, StyleProvider } from '@ant-design/cssinjs';
import * as antd from 'antd';
import { build } from 'esbuild';
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createElement as element, Fragment, type ComponentType, type ReactNode } from 'react';
import { renderToString } from 'react-dom/server';
import { antdTheme } from '@/ui/theme/antd-theme';
import type { ThemeName } from '@/ui/theme/roles';

/*
 * Writes the style sheet of the component library, so that no browser has to work it out (decision
 * 58): what the library would make at run time, of just those components that any screen can reach.
 */

const OUT = join('src', 'ui', 'theme', 'made', 'components.css');
const STYLE = /^node_modules\/antd\/es\/([a-z-]+)\/style\//;

/** Directories of the library whose styles are somewhere in the built program. */
async function reached(): Promise<string[]> {
  const pages = readdirSync('src/app', { recursive: true, encoding: 'utf8' })
    .filter((name) => /(^|\/)(page|layout|global-error)\.tsx$/.test(name))
    .map((name) => join('src/app', name));
  const { metafile } = await build({
    entryPoints: pages,
    outdir: 'unused',
    bundle: true,
    splitting: true,
    write: false,
    metafile: true,
    minify: true,
    format: 'esm',
    jsx: 'automatic',
    define: { 'process.env.NODE_ENV': '"production"' },
    external: ['next', 'next/*', '*.css'],
  });
  const names = Object.values(metafile.outputs).flatMap(({ inputs }) =>
    Object.entries(inputs).flatMap(([path, { bytesInOutput }]) =>
      bytesInOutput > 0 ? (STYLE.exec(path)?.[1] ?? []) : [],
    ),
  );
  return [...new Set(names)].sort();
}

type Any = ComponentType<Record<string, unknown>>;
type Panel = { _InternalPanelDoNotUseOrYouWillBeFired: Any };
const panelOf = (of: unknown) => element((of as Panel)._InternalPanelDoNotUseOrYouWillBeFired);

/** Components that show themselves only with something in or around them. */
const DRAWN: Readonly<Record<string, () => ReactNode>> = {
  dropdown: () => element(antd.Dropdown, { menu: { items: [] } }, element('i')),
  grid: () => element(antd.Row, null, element(antd.Col)),
  input: () =>
    element(
      Fragment,
      null,
      element(antd.Input),
      element(antd.Input.Search),
      element(antd.Input.TextArea),
      element(antd.Input.Password),
      element(antd.Input.OTP),
    ),
  menu: () => element(antd.Menu, { items: [] }),
  message: () => panelOf(antd.message),
  modal: () => element(Fragment, null, element(antd.Modal), panelOf(antd.Modal)),
  notification: () => panelOf(antd.notification),
  space: () => element(antd.Space.Compact, null, element(antd.Button)),
  tag: () => element(antd.Tag, { color: 'blue' }),
  tree: () => element(antd.Tree, { treeData: [] }),
};
/** Directories that are no component of their own. */
const NONE = new Set(['style']);

function drawn(directory: string): ReactNode {
  if (NONE.has(directory)) return null;
  if (directory in DRAWN) return DRAWN[directory]();
  const name = directory.replace(/(^|-)(.)/g, (_, __, letter: string) => letter.toUpperCase());
  const component = (antd as unknown as Record<string, Any | undefined>)[name];
  if (!component) throw new Error(`No component is known whose styles stand in “${directory}”.`);
  return element(component);
}

function stylesOf(directories: readonly string[], theme: ThemeName): string {
  const cache = createCache();
  renderToString(
    element(
      StyleProvider,
      { cache },
      element(
        antd.ConfigProvider,
        { theme: { ...antdTheme(theme), zeroRuntime: false } },
        ...directories.map(drawn),
      ),
    ),
  );
  // The last rule is the library’s own note of what has been made. Of its rules for links without
  // a class, which come first, every link of a page would lose underline and ring.
  return extractStyle(cache, { plain: true, types: 'style' })
    .replace(/\.data-ant-[^{]*\{[^}]*\}$/, '')
    .replace(/(?<=^|\})(?:a(?::[a-z-]+|\[disabled\])?,?)+\{[^{}]*\}/g, '');
}

async function write(): Promise<void> {
  const directories = await reached();
  const styles = stylesOf(directories, 'light');
  // One sheet serves both: whatever differs between them is a variable.
  if (stylesOf(directories, 'dark') !== styles)
    throw new Error('The components’ styles are not the same in both themes.');
  mkdirSync(join(OUT, '..'), { recursive: true });
  writeFileSync(OUT, styles);
  console.log(`Styles of ${directories.length} kinds of components: ${directories.join(', ')}.`);
}

void write();
