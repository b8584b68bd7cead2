import { Modal } from "antd";
import { memo } from "react";
import { Toggle } from "../../ui/fields";
import { usePreferences } from "../../lib/preferences";
import styles from "./KeySheet.module.css";

const keys = [
  ["Head", "1 … 5", "Top, back, left, right, front"],
  ["Head", "M", "To the head; arrow keys turn it"],
  ["Head", "Tab, then arrows", "From section to section"],
  ["Head", "Enter", "Read the section"],
  ["Head", "Escape", "Leave the section"],
  ["Sections", "Enter", "Pick, or pick no more"],
  ["Sections", "J", "Join what is picked"],
  ["Sections", "S and V", "Split side by side, or one above the other"],
  ["Sections", "O", "Leave out"],
  ["Sections", "L", "Lock, unlock"],
  ["Sections", "+ and −", "Pieces on what is picked"],
  ["Sections", "R and Z", "Pick the whole row, the whole zone"],
  ["Sections", "Tab, then arrows", "Move a part line, a part in a row, the hairline"],
  ["Leave out", "Enter", "Leave the section out"],
  ["A method, drawn", "← and →", "Picture before, picture after"],
  ["A method, drawn", "P, R and S", "Play, see again, slow"],
  ["Plan", "[ and ]", "Step before, step after"],
  ["Plan", "Ctrl+Z", "Undo"],
  ["Plan", "Ctrl+Shift+Z", "Redo"],
  ["Plan", "W", "Next warning, shown on the head"],
  ["Plan", "H", "History"],
  ["Plan", "P", "Plan sheet as PDF"],
  ["Day", "Space", "A piece that is timed is done"],
  ["Day", "Tab, then Enter", "A row earlier, a row later"],
  ["Numbers", "↑ and ↓", "An eighth of an inch or a millimetre"],
  ["Numbers", "← and →", "Slide a size"],
  ["Everywhere", "?", "This list"],
] as const;

/** All keys of the workspace. */
export const KeySheet = memo(function KeySheet({ onClose }: { onClose: () => void }) {
  const { letterKeys, set } = usePreferences();
  const groups = [...new Set(keys.map(([group]) => group))];
  return (
    <Modal open title="Keys" footer={null} onCancel={onClose} width={560}>
      <Toggle
        label="Keys of one letter"
        note="switch them off where a voice or a resting hand presses them by chance"
        checked={letterKeys}
        onChange={(on) => set({ letterKeys: on })}
      />
      <div className={styles.groups}>
        {groups.map((group) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {keys
                .filter(([g]) => g === group)
                .map(([, key, what]) => (
                  <div key={key}>
                    <dt>
                      <kbd>{key}</kbd>
                    </dt>
                    <dd>{what}</dd>
                  </div>
                ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
});
