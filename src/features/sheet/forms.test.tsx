/** @jest-environment jsdom */
import '@/testing/dom';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MEASURE_CHOICES } from '@/core/response/readings';
import { closeNow, LOW_PASS, newSheet, openNow, present } from '@/testing/open-sheet';
import { useSheet } from '@/store/sheet-session';
import { Controls } from './controls';
import { Keeps } from './keeps';
import { LoadEnd, SourceEnd } from './path-ends';
import { PinForm } from './pin-form';
import { resetUi, setUi, useUi } from './ui-state';
import { WantedForm } from './wanted-form';

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup({ delay: null });
  openNow();
});
afterEach(() => {
  act(() => {
    resetUi();
    closeNow();
  });
});

/** Choose from one of Ant Design's lists, by keyboard as its own users do. */
async function choose(label: string, option: string): Promise<void> {
  await user.click(screen.getByRole('combobox', { name: label }));
  await user.click(await screen.findByTitle(option));
}
const field = (name: string) => screen.getByRole('textbox', { name });
async function fill(name: string, text: string): Promise<void> {
  await user.clear(field(name));
  await user.type(field(name), text);
}

describe('pinning a reading', () => {
  const pinned = () => present().readings[present().readings.length - 1];
  const pin = () => user.click(screen.getByRole('button', { name: 'Pin this reading' }));

  test('a level begins at the cursor and is pinned as typed', async () => {
    setUi({ cursorHz: 1234, pinning: true });
    render(<PinForm ask={LOW_PASS} />);
    const level = MEASURE_CHOICES.find((c) => c.measure === 'level')!;
    if (MEASURE_CHOICES[0] !== level) await choose('What to read', level.title);
    const [hz] = level.fields.filter((f) => f.is === 'hertz');
    expect((field(hz.label) as HTMLInputElement).value).toBe('1k234');
    await fill(hz.label, '8k');
    await pin();
    expect(pinned().measure).toMatchObject({ measure: 'level', atHz: 8000 });
    expect(useUi.getState().pinning).toBe(false);
  });

  test('what cannot be read says so in the form, and nothing is pinned', async () => {
    const before = present().readings.length;
    render(<PinForm ask={LOW_PASS} />);
    const level = MEASURE_CHOICES.find((c) => c.measure === 'level')!;
    if (MEASURE_CHOICES[0] !== level) await choose('What to read', level.title);
    const [hz] = level.fields.filter((f) => f.is === 'hertz');
    await fill(hz.label, 'eight');
    await pin();
    expect(screen.getByRole('alert').textContent).toMatch(/eight/);
    await fill(hz.label, '20G');
    await pin();
    expect(screen.getByRole('alert').textContent).toMatch(/at most/);
    expect(present().readings).toHaveLength(before);
  });

  test('an edge takes its side from the ask and can be turned', async () => {
    render(<PinForm ask={LOW_PASS} />);
    const edge = MEASURE_CHOICES.find((c) => c.measure === 'edge')!;
    if (MEASURE_CHOICES[0] !== edge) await choose('What to read', edge.title);
    await choose('Side', 'towards low frequencies');
    await pin();
    expect(pinned().measure).toMatchObject({ measure: 'edge', side: 'lower' });
  });

  test('it can be read at the output of an earlier stage', async () => {
    render(<PinForm ask={LOW_PASS} />);
    await user.click(screen.getByRole('combobox', { name: 'Read at' }));
    const options = await screen.findAllByRole('option');
    expect(options[0].getAttribute('aria-label')).toBe('the end of the path');
    await user.click(screen.getByTitle(options[1].getAttribute('aria-label')!));
    await pin();
    expect(pinned().at).toMatchObject({ stage: 's1' });
  });
});

describe('what is wanted of a reading', () => {
  const reading = () => present().readings[0];
  const take = () => user.click(screen.getByRole('button', { name: /^Take/ }));

  test('an edge is wanted near a frequency, within per cent', async () => {
    render(<WantedForm reading={reading()} />);
    await fill('Value', '3k3');
    await fill('Within ± %', '5');
    await fill('Called', '  Top end ');
    await take();
    expect(reading()).toMatchObject({
      name: 'Top end',
      wanted: { is: 'near', value: 3300, tolerance: 0.05, relative: true },
    });
    expect(screen.getByRole('button', { name: 'Taken' })).toBeDefined();
  });

  test('at least, and nothing in particular', async () => {
    render(<WantedForm reading={reading()} />);
    await choose('Wanted', 'at least');
    await fill('Value', '3k');
    await take();
    expect(reading().wanted).toEqual({ is: 'at-least', value: 3000 });
    await choose('Wanted', 'nothing in particular');
    expect(screen.queryByRole('textbox', { name: 'Value' })).toBeNull();
    await take();
    expect(reading().wanted).toBeUndefined();
  });

  test('a half-typed number judges nothing', async () => {
    const before = reading();
    render(<WantedForm reading={before} />);
    await fill('Value', '3k3k');
    await take();
    expect(screen.getByRole('alert').textContent).toMatch(/3k3k/);
    expect(reading()).toEqual(before);
  });
});

describe('keeps', () => {
  function Open() {
    return <Keeps keeps={useSheet()!.keeps} />;
  }

  test('taken by name, hidden, gone back to, and removed', async () => {
    render(<Open />);
    expect(screen.getByText(/A keep holds the sheet as it is now/)).toBeDefined();
    await user.type(field('Name of the keep'), 'Before the swap{Enter}');
    const { ask } = present();
    expect(present().keeps.map((k) => k.name)).toEqual(['Before the swap']);
    const eye = screen.getByRole('button', { name: 'Show keep Before the swap' });
    expect(eye.getAttribute('aria-pressed')).toBe('true');
    await user.click(eye);
    expect(present().keeps[0].shown).toBe(false);
    act(() => void openNow({ ...present(), ask: { ...ask, edgeHz: 99 } }));
    await user.click(screen.getByRole('button', { name: 'Go back to keep Before the swap' }));
    expect(present().ask).toEqual(ask);
    await user.click(screen.getByRole('button', { name: 'Remove keep Before the swap' }));
    expect(present().keeps).toEqual([]);
    expect(screen.queryByRole('listitem')).toBeNull();
  });

  test('one too many is said, and the name stays to be kept elsewhere', async () => {
    const [kept] = (() => {
      const sheet = newSheet();
      const { id, title, createdAt, updatedAt, revision, format, version, keeps, view, ...design } =
        sheet;
      void [id, title, createdAt, updatedAt, revision, format, version, keeps, view];
      return [{ id: 'k', name: 'k', at: createdAt, shown: false, design }];
    })();
    openNow(
      newSheet(LOW_PASS, {
        keeps: Array.from({ length: 100 }, (_, n) => ({ ...kept, id: `k${n}` })),
      }),
    );
    render(<Keeps keeps={[]} />);
    await user.type(field('Name of the keep'), 'One more{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/at most 100 keeps: remove one first/);
    expect((field('Name of the keep') as HTMLInputElement).value).toBe('One more');
  });
});

describe('the ends of a path', () => {
  function Ends() {
    const { source, ways } = useSheet()!;
    return (
      <>
        <SourceEnd source={source} />
        <LoadEnd to={ways[0].to} />
      </>
    );
  }
  const edit = async (name: RegExp, text: string) => {
    await user.click(screen.getByRole('button', { name }));
    const input = screen.getByRole('textbox');
    await user.clear(input);
    await user.type(input, `${text}{Enter}`);
  };

  test('names and numbers are edited where they stand', async () => {
    render(<Ends />);
    await edit(/^Source name/, 'Record deck');
    await edit(/^Source resistance/, '1k5');
    await edit(/^Source voltage/, '5m');
    await edit(/^Load resistance/, '47k');
    await edit(/^Load capacitance/, '220p');
    expect(present().source).toEqual({ name: 'Record deck', ohms: 1500, volts: 5e-3 });
    expect(present().ways[0].to).toMatchObject({ ohms: 47_000, farads: 220e-12 });
    await edit(/^Load resistance/, ' ');
    expect(present().ways[0].to).toMatchObject({ ohms: null });
    expect(screen.getByRole('button', { name: 'Load resistance: open' })).toBeDefined();
  });

  test('a source of less than nothing is refused beside its field', async () => {
    render(<Ends />);
    await edit(/^Source resistance/, '-5');
    expect(screen.getByRole('alert').textContent).toMatch(/cannot be negative|at least/);
    expect(present().source.ohms).toBe(0);
  });

  test('a loudspeaker that is not in this browser says so', () => {
    const [way] = present().ways;
    const to = { is: 'driver', name: 'Woofer', driver: 'y1', inverted: true } as const;
    act(() => void openNow(newSheet(LOW_PASS, { ways: [{ ...way, to }] })));
    render(<Ends />);
    expect(screen.getByText('not in this browser, turned round')).toBeDefined();
    expect(screen.queryByRole('button', { name: /^Load resistance/ })).toBeNull();
  });
});

test('a knob is turned by the keyboard, pointed at while it has the focus, and let go', async () => {
  const moves = [
    { stage: 's1', part: 'R1', quantity: 'ohms', from: 1e3, to: 1e4, law: 'even' as const },
  ];
  openNow(
    newSheet(LOW_PASS, { controls: [{ id: 'c1', name: 'Cut', is: 'turn', at: 0.5, moves }] }),
  );
  function Open() {
    return <Controls sheet={useSheet()!} />;
  }
  render(<Open />);
  const group = within(screen.getByRole('group', { name: 'Controls' }));
  const slider = group.getByRole('slider', { name: 'Control Cut' });
  act(() => slider.focus());
  expect(useUi.getState().pointedPart).toBe('control:c1');
  for (let n = 0; n < 2; n++) fireEvent.keyDown(slider, { key: 'ArrowRight', keyCode: 39 });
  expect(present().controls[0].at).toBeCloseTo(0.52, 9);
  expect(group.getByText('52 %')).toBeDefined();
  await user.click(group.getByRole('button', { name: 'Let Cut go' }));
  expect(present().controls).toEqual([]);
  expect(screen.queryByRole('group', { name: 'Controls' })).toBeNull();
});
