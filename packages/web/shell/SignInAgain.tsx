import { api, signInBody } from '@osier/contract';
import { Button, Modal } from 'antd';
import { call } from '../api/call';
import { SchemaForm } from '../parts/form/SchemaForm';
import { usePerson } from './person';
import { takeUp, tellSession, useSession } from './session';
import { SIGN_IN } from './sign-in-fields';
import { shellWords as wording } from './words';

/** Asks to sign in again over what is on screen, so that nothing typed is lost. */
export default function SignInAgain({ isDemo }: { isDemo: boolean }) {
  const person = usePerson();
  const isOver = useSession((s) => s.isOver);
  const goOn = (id: number) => {
    tellSession(id);
    if (id === person.id) takeUp();
    else window.location.assign('/');
  };
  const again = async () => {
    await call(api.people.signInAsDemo, { body: { person: person.id } });
    goOn(person.id);
  };
  return (
    <Modal
      open={isOver}
      title={wording.signedOut}
      footer={null}
      closable={false}
      mask={{ closable: false }}
      keyboard={false}
      width={400}
    >
      <p style={{ marginBottom: 12 }}>{wording.youWereSignedOutWhat(person.name)}</p>
      {isDemo ? (
        <Button block type="primary" onClick={() => void again()}>
          {wording.signInAs(person.name)}
        </Button>
      ) : (
        <SchemaForm
          schema={signInBody}
          fields={SIGN_IN}
          isBlock
          verb={wording.signIn}
          onSend={async (body) => goOn((await call(api.people.signIn, { body })).id)}
        />
      )}
    </Modal>
  );
}
