import type { Paper } from '../../core/kit';
import { Toggle } from './Toggle';

/** What is printed on. */
export const PaperChoice = ({
  value,
  onChange,
}: {
  value: Paper | undefined;
  onChange: (value: Paper) => void;
}) => (
  <Toggle<Paper | ''>
    label="Paper"
    value={value ?? ''}
    options={[
      { value: 'a4', label: 'A4' },
      { value: 'letter', label: 'Letter' },
    ]}
    onChange={(paper) => paper && onChange(paper)}
  />
);
