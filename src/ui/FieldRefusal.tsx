import type { ReactNode } from 'react';
import Alert from 'react-bootstrap/Alert';

/** Why something was not done, beside the field or form it is about; nothing where there is no reason. */
export const FieldRefusal = ({ children }: { children: ReactNode }) =>
  children ? (
    <Alert bsPrefix="field-refusal" variant="" transition={false}>
      {children}
    </Alert>
  ) : null;
