#! target 2.7
#! run
def name_of(found)
  name = found #! likely
  name = 'nobody' unless name
end

def own(found)
  if found
    name = found #! likely
    name = "nobody" unless name
  end
end

p name_of('Ada'), own('Ada')
