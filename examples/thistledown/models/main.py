"""Who keeps what, from the co-operative's tables."""

from combmapper import Session
from keepers import Hive, Keeper


def fill(session):
    session.add(Keeper(id=1, name="Wren", telephone="30 12"), Keeper(id=2, name="Alder"))
    session.add(Hive(id=1, place="orchard", kilos=31.5, keeper_id=1, remark="strong"))
    session.add(Hive(id=2, place="heath", keeper_id=1), Hive(id=3, place="lane", kilos=18.0))


def report(session):
    for keeper in session.query(Keeper).order_by(Keeper.name).all():
        places = [hive.place for hive in keeper.hives]
        print(keeper.name, keeper.telephone, places)
    heavy = session.query(Hive).filter(Hive.kilos > 20).first()
    print(heavy.place, heavy.kilos, heavy.keeper.name)
    print(session.query(Hive).filter(Hive.kilos > 100).count())
    lane = session.query(Hive).get(3)
    print(lane.place, lane.remark, lane.keeper)


def main():
    session = Session(":memory:", [Keeper, Hive])
    try:
        fill(session)
        report(session)
    finally:
        session.close()


main()
