'use client';

import dynamic from 'next/dynamic';
import { Button } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { NumbersChoice } from '@/components/NumbersChoice';
import { PersonFields } from '@/components/PersonFields';
import { numbersAsked } from '@/store/asking';
import { moneyFormat } from '@/store/format';
import { useGround } from '@/store/ground';
import { initialsOf, setPerson, usePerson } from '@/store/person';
import { setSession, useSession } from '@/store/session';

const AddAccount = dynamic(() => import('./AddAccount').then((m) => m.AddAccount));

/** What a screen asks for over itself, wherever one is: an account, the person's name. */
export function Asked() {
  const asked = useSession((s) => s.asked);
  const close = () => setSession({ asked: null });
  switch (asked) {
    case null:
      return null;
    case 'account':
      return <NewAccount onClose={close} />;
    case 'name':
      return <NameDialog onClose={close} />;
    case 'numbers':
      return <NumbersDialog />;
  }
}

function NewAccount({ onClose }: { readonly onClose: () => void }) {
  const ground = useGround();
  return ground && <AddAccount ground={ground} opened onClose={onClose} />;
}

function NumbersDialog() {
  const question = numbersAsked();
  const book = useGround()?.book;
  if (!question || !book) return null;
  return (
    <Dialog
      opened
      onClose={() => question.answer(null)}
      title={<span className="title">{question.fileName}</span>}
    >
      <NumbersChoice
        doubt={question.doubt}
        text={(a) => moneyFormat(book).exact(a)}
        onChoose={question.answer}
      />
      <Button onClick={() => question.answer(null)}>Leave the file out</Button>
    </Dialog>
  );
}

function NameDialog({ onClose }: { readonly onClose: () => void }) {
  const person = usePerson();
  return (
    <Dialog opened onClose={onClose} title={<span className="title">Who is writing?</span>}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          onClose();
        }}
      >
        <p style={{ marginTop: 0 }}>
          What is written has no name yet. Yours goes with your changes, notes and approvals from now on; it
          is kept in this browser.
        </p>
        <PersonFields person={person} initialsOf={initialsOf} onPerson={setPerson} />
        <Button type="submit" mt="md" variant="filled">
          Done
        </Button>
      </form>
    </Dialog>
  );
}
