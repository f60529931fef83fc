import { useCombobox } from 'downshift';
import type { ReactNode } from 'react';

interface SuggestProps<Item> {
  label: string;
  placeholder: string;
  items: readonly Item[];
  /** Names an item for those who do not see the list, and tells it from the others. */
  keyOf: (item: Item) => string;
  nameOf: (item: Item) => string;
  render: (item: Item) => ReactNode;
  onType: (text: string) => void;
  /** An item was chosen; or Enter was pressed on a text that is none of them. */
  onChoose: (item: Item | null, text: string) => void;
  /** Said under the field where nothing is found. */
  empty?: string | undefined;
  /** The id of the field, for who puts the cursor into it. */
  inputId?: string;
  className?: string;
  /** Keys for the list of keys. */
  keys?: { keys: string; does: string };
}

/** A field that proposes what fits, chosen by arrow keys, Enter or the pointer. */
export function Suggest<Item>(props: SuggestProps<Item>) {
  const { label, placeholder, items, keyOf, nameOf, render, onType, onChoose, empty } = props;
  const list = [...items];
  const {
    isOpen,
    inputValue,
    highlightedIndex,
    getInputProps,
    getMenuProps,
    getItemProps,
    setInputValue,
    closeMenu,
  } = useCombobox<Item>({
    items: list,
    ...(props.inputId !== undefined && { inputId: props.inputId }),
    defaultHighlightedIndex: -1,
    itemToString: (item) => (item === null ? '' : nameOf(item)),
    itemToKey: (item) => (item === null ? null : keyOf(item)),
    onInputValueChange: ({ inputValue: text, type }) => {
      if (type !== useCombobox.stateChangeTypes.InputChange) return;
      onType(text);
    },
    onSelectedItemChange: ({ selectedItem }) => {
      if (selectedItem === null || selectedItem === undefined) return;
      choose(selectedItem);
    },
    stateReducer: (_, { changes, type }) =>
      // What was chosen goes its way; the field is free for the next.
      type === useCombobox.stateChangeTypes.InputKeyDownEnter ||
      type === useCombobox.stateChangeTypes.ItemClick
        ? { ...changes, inputValue: '' }
        : changes,
    selectedItem: null,
  });
  const choose = (item: Item | null) => {
    onChoose(item, item === null ? '' : nameOf(item));
    onType('');
  };
  const isShown = isOpen && inputValue.trim() !== '' && (list.length > 0 || empty !== undefined);
  return (
    <div className={`relative ${props.className ?? ''}`}>
      <input
        {...getInputProps({
          'aria-label': label,
          placeholder,
          onKeyDown: (event) => {
            if (event.key !== 'Enter' || (isOpen && highlightedIndex >= 0)) return;
            event.preventDefault();
            if (inputValue.trim() === '') return;
            onChoose(null, inputValue.trim());
            setInputValue('');
            onType('');
            closeMenu();
          },
        })}
        className="field"
        autoComplete="off"
        data-keys={props.keys?.keys}
        data-does={props.keys?.does}
      />
      <ul
        {...getMenuProps({ 'aria-label': label })}
        className={
          'absolute top-full right-0 left-0 z-40 mt-0.5 max-h-[60vh] min-w-64 overflow-auto border ' +
          `border-line bg-sheet shadow-lg ${isShown ? '' : 'hidden'}`
        }
      >
        {isShown &&
          list.map((item, index) => (
            <li
              key={keyOf(item)}
              {...getItemProps({ item, index })}
              className={`cursor-pointer px-2.5 py-1.5 ${index === highlightedIndex ? 'bg-plum-soft' : ''}`}
            >
              {render(item)}
            </li>
          ))}
        {isShown && list.length === 0 && <li className="px-2.5 py-1.5 text-ink-2">{empty}</li>}
      </ul>
    </div>
  );
}
