"""Keepers, their hives, and what was seen in them."""

from combmapper import Column, Number, Remark, Text, Whole, link, make_base, related

Base = make_base()


class Keeper(Base):
    table = "keeper"

    id = Column(Whole, primary=True)
    name = Column(Text(40), nullable=False)
    # Nobody must have a telephone.
    telephone = Column(Text(20))
    hives = related("Hive", many=True)


class Hive(Base):
    table = "hive"

    id = Column(Whole, primary=True)
    place = Column(Text, nullable=False)
    kilos = Column(Number, default=0.0)
    remark = Column(Remark)
    keeper_id = Column(Whole, link("keeper.id"))
    keeper = related("Keeper")
