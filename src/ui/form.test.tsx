import { render, screen } from '@testing-library/react';
import { renderToString } from 'react-dom/server';
import { Form } from './Form';

describe('a form', () => {
  const form = (
    <Form>
      <input aria-label="What fails" />
    </Form>
  );

  it('takes nothing while it is only what the server drew', () => {
    expect(renderToString(form)).toMatch(/<fieldset[^>]* disabled/);
  });

  it('takes what is typed once it answers', () => {
    render(form);
    expect((screen.getByLabelText('What fails') as HTMLInputElement).matches(':disabled')).toBe(false);
  });
});
