'use client';

import Button, { type ButtonProps } from 'react-bootstrap/Button';

/** A button written as a word in its line. */
export const WordButton = (props: ButtonProps) => <Button bsPrefix="word" variant="" {...props} />;
